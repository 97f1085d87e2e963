import stringWidth from 'string-width';
import type { Finding, SnippetReport } from '../core/run.js';
import { counts } from '../core/verdict.js';
import { countWords } from '../core/words/list.js';
import type { Block } from './blocks.js';
import { cleanLine } from './clean.js';
import { makeCodeFrame } from './code-frame.js';
import { formatCorrected } from './corrected.js';
import { formatMore, formatWaiver, listMeasured } from './measured.js';
import type { Paint } from './paint.js';
import { countPlaces, describeDoubt } from './summary.js';
import { pad, SHAPES } from './text-grid.js';
import { wrap } from './wrap.js';

const INDENT = '    ';
const LABEL = 11;
/** So many places that are alike are named. */
const MOST_ALIKE = 10;

interface Room {
  paint: Paint;
  width: number;
}

/** One cause: level, name, place; the source with a caret; what was measured, noticed, to change. */
export function formatBlock(block: Block, snippet: SnippetReport, room: Room): string {
  const { main, also, cause, alike } = block;
  const { paint, width } = room;
  const rows: [string, string][] = [
    ...also.map((one, i): [string, string] => [
      i === 0 ? 'also' : '',
      `${SHAPES[one.level]} ${one.id}: ${one.message}`,
    ]),
    ['visitors', main.notice],
    ['change', listCures(block).join(' ')],
    ['waiver', formatWaiver(main.waiver)],
  ];
  return [
    formatHead(block, room),
    wrap(cleanLine(main.message), width, INDENT),
    formatFrame(main, snippet.text, room),
    formatTable(block, countPlaces(snippet), room),
    ...rows.map(([label, words]) => formatRow(label, words, room)),
    cause.mend && formatMended(snippet.text, cause.mend, paint),
    alike.length > 0 && formatAlike(alike, room),
  ]
    .filter(Boolean)
    .join('\n');
}

function formatHead({ number, main }: Block, { paint, width }: Room): string {
  const { level, where } = main;
  const waived = !counts(main);
  const shape = waived ? SHAPES.waived : SHAPES[level];
  const notes = `line ${where.line}, column ${where.column}${describeDoubt(main)}${waived ? ' · waived' : ''}`;
  const name = `${paint[level](`${shape} ${level}`)}  ${paint.strong(main.id)}  ${paint.faint(notes)}`;
  return wrap(`${number}  ${name}`, width, INDENT, '  ');
}

/** What to change for the gravest, and for those that its change leaves as they are. */
export function listCures({ main, also, cause }: Block): string[] {
  const cures = [main, ...also.filter(({ id }) => !cause.cures.includes(id))].map(
    ({ cure }) => cure,
  );
  return [...new Set(cures)];
}

function formatFrame({ where }: Finding, text: string, { paint, width }: Room): string {
  const margin = INDENT.length + String(where.line).length + 3;
  const frame = makeCodeFrame(text, where, Math.max(width - margin, 20));
  const blank = ' '.repeat(frame.number.length);
  return [
    `${INDENT}${paint.faint(`${frame.number} │`)} ${frame.source}`,
    `${INDENT}${paint.faint(`${blank} │`)} ${paint.concern(frame.caret)}`,
  ].join('\n');
}

/** What was measured, in columns: slot, widths, what. */
function formatTable(block: Block, places: number, { paint, width }: Room): string {
  const table = listMeasured(block, places);
  const columns = (['slot', 'width'] as const).map((name) =>
    Math.max(...table.rows.map((row) => stringWidth(cleanLine(row[name]))), 0),
  );
  const lines = table.rows.map((row) => {
    const cells = [row.slot, row.width].map((cell, i) => pad(cleanLine(cell), columns[i]!));
    return [...cells.filter((_, i) => columns[i]! > 0), row.what].join('  ');
  });
  const more = formatMore(table);
  const label = (i: number) => paint.faint((i === 0 ? 'measured' : '').padEnd(LABEL));
  return [...lines, ...(more ? [more] : [])]
    .map((line, i) => wrap(line, width, INDENT + ' '.repeat(LABEL + 2), INDENT + label(i)))
    .join('\n');
}

function formatRow(label: string, words: string, { paint, width }: Room): string {
  if (!words) return '';
  const indent = INDENT + ' '.repeat(LABEL);
  return wrap(cleanLine(words), width, indent, INDENT + paint.faint(label.padEnd(LABEL)));
}

function formatMended(text: string, edits: NonNullable<Finding['mend']>, paint: Paint): string {
  const { atEnd, lines } = formatCorrected(text, edits);
  // What is put at the end is said where it says what to change.
  if (atEnd) return '';
  const label = INDENT + paint.faint('corrected'.padEnd(LABEL));
  // Not wrapped: it is there to be copied.
  return label + lines.join(`\n${INDENT}${' '.repeat(LABEL)}`);
}

/** The same at other places: a line each. */
function formatAlike(alike: readonly Finding[], { paint, width }: Room): string {
  const lines = alike.slice(0, MOST_ALIKE).map(({ cause, where, message }) => {
    const line = `${cause}  line ${where.line}, column ${where.column}: ${cleanLine(message)}`;
    return cut(line, width - INDENT.length - LABEL);
  });
  const rest = alike.slice(MOST_ALIKE);
  if (rest.length > 0)
    lines.push(
      `and ${countWords(rest.length, 'more place')}, down to line ${rest.at(-1)!.where.line}`,
    );
  return lines
    .map((line, i) => INDENT + paint.faint((i === 0 ? 'likewise' : '').padEnd(LABEL)) + line)
    .join('\n');
}

function cut(text: string, width: number): string {
  const room = Math.max(width, 20);
  return text.length > room ? `${text.slice(0, room - 1)}…` : text;
}
