import type { Finding } from '../core/run.js';
import { getMendedLines } from '../core/mend/apply.js';
import { clean, cleanLine } from './clean.js';
import { makeCodeFrame } from './code-frame.js';
import { formatMeasured, formatWaiver } from './measured.js';
import type { Paint } from './paint.js';
import { SHAPES } from './text-grid.js';
import { wrap } from './wrap.js';

const INDENT = '    ';
const LABEL = 11;
/** A longer line is not printed: nobody reads it, or copies it, on a terminal. */
export const LONGEST_LINE = 400;

/** One finding: level, name, place; the source with a caret; what was measured, noticed, to change. */
export function formatFinding(
  finding: Finding,
  number: number,
  text: string,
  { paint, width }: { paint: Paint; width: number },
  renders: number,
): string {
  const { where, level } = finding;
  const waived = finding.waiver && !finding.waiver.expired ? ' · waived' : '';
  const guess = finding.confirmed ? '' : ' · from the markup alone';
  const head = wrap(
    `${number}  ${paint[level](`${SHAPES[level]} ${level}`)}  ${paint.strong(finding.id)}  ${paint.faint(`line ${where.line}, column ${where.column}${guess}${waived}`)}`,
    width,
    '    ',
    '  ',
  );
  const rows: [string, string][] = [
    ['measured', formatMeasured(finding, renders)],
    ['visitors', finding.notice],
    ['change', finding.cure],
    ['waiver', formatWaiver(finding.waiver)],
  ];
  return [
    head,
    wrap(cleanLine(finding.message), width, INDENT),
    formatFrame(finding, text, paint, width),
    ...rows
      .filter(([, words]) => words)
      .map(([label, words]) => formatRow(label, words, width, paint)),
    formatMended(finding, text, paint),
  ]
    .filter(Boolean)
    .join('\n');
}

function formatFrame({ where }: Finding, text: string, paint: Paint, width: number): string {
  const margin = INDENT.length + String(where.line).length + 3;
  const frame = makeCodeFrame(text, where, Math.max(width - margin, 20));
  const blank = ' '.repeat(frame.number.length);
  return [
    `${INDENT}${paint.faint(`${frame.number} │`)} ${frame.source}`,
    `${INDENT}${paint.faint(`${blank} │`)} ${paint.concern(frame.caret)}`,
  ].join('\n');
}

function formatRow(label: string, words: string, width: number, paint: Paint): string {
  const indent = INDENT + ' '.repeat(LABEL);
  return wrap(cleanLine(words), width, indent, INDENT + paint.faint(label.padEnd(LABEL)));
}

function formatMended(finding: Finding, text: string, paint: Paint): string {
  if (!finding.mend) return '';
  const line = clean(getMendedLines(text, finding.mend));
  if (line.length > LONGEST_LINE) return '';
  // Not wrapped: it is there to be copied.
  return `${INDENT}${paint.faint('corrected'.padEnd(LABEL))}${line.split('\n').join(`\n${INDENT}${' '.repeat(LABEL)}`)}`;
}
