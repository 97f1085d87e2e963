import stringWidth from 'string-width';
import type { Finding, SnippetReport } from '../core/run.js';
import { countWords } from '../core/words/list.js';
import type { Block } from './blocks.js';
import { cleanLine } from './clean.js';
import { makeCodeFrame } from './code-frame.js';
import { formatMore } from './measured.js';
import type { Paint } from './paint.js';
import { pad, SHAPES } from './text-grid.js';
import { tellBlock, type Told } from './told.js';
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
  const told = tellBlock(block, snippet);
  const rows = [
    ...told.also.map(({ level, id, message }, i): [string, string] => [
      i === 0 ? 'also' : '',
      `${SHAPES[level]} ${id}: ${message}`,
    ]),
    ...told.rows
      .filter(({ label }) => label !== 'standard')
      .map(({ label, words }): [string, string] => [label, words]),
  ];
  return [
    formatHead(told, room),
    wrap(cleanLine(told.message), room.width, INDENT),
    formatFrame(told.where, snippet.text, room),
    formatTable(told, room),
    ...rows.map(([label, words]) => formatRow(label, words, room)),
    formatMended(told, room.paint),
    told.alike.length > 0 && formatAlike(told, room),
  ]
    .filter(Boolean)
    .join('\n');
}

function formatHead({ number, mark, level, id, place }: Told, { paint, width }: Room): string {
  const name = `${paint[level](`${SHAPES[mark]} ${level}`)}  ${paint.strong(id)}  ${paint.faint(place)}`;
  return wrap(`${number}  ${name}`, width, INDENT, '  ');
}

function formatFrame(where: Finding['where'], text: string, { paint, width }: Room): string {
  const margin = INDENT.length + String(where.line).length + 3;
  const frame = makeCodeFrame(text, where, Math.max(width - margin, 20));
  const blank = ' '.repeat(frame.number.length);
  return [
    `${INDENT}${paint.faint(`${frame.number} │`)} ${frame.source}`,
    `${INDENT}${paint.faint(`${blank} │`)} ${paint.concern(frame.caret)}`,
  ].join('\n');
}

/** What was measured, in columns: slot, widths, what. */
function formatTable({ measured: table }: Told, { paint, width }: Room): string {
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
  const indent = INDENT + ' '.repeat(LABEL);
  return wrap(cleanLine(words), width, indent, INDENT + paint.faint(label.padEnd(LABEL)));
}

/** Not wrapped: it is there to be copied. */
function formatMended({ corrected }: Told, paint: Paint): string {
  if (corrected.length === 0) return '';
  const label = INDENT + paint.faint('corrected'.padEnd(LABEL));
  return label + corrected.join(`\n${INDENT}${' '.repeat(LABEL)}`);
}

/** The same at other places: a line each. */
function formatAlike({ alike }: Told, { paint, width }: Room): string {
  const lines = alike
    .slice(0, MOST_ALIKE)
    .map(({ number, place, message }) =>
      cut(`${number}  ${place}: ${cleanLine(message)}`, width - INDENT.length - LABEL),
    );
  const rest = alike.slice(MOST_ALIKE);
  if (rest.length > 0)
    lines.push(`and ${countWords(rest.length, 'more place')}, down to line ${rest.at(-1)!.line}`);
  return lines
    .map((line, i) => INDENT + paint.faint((i === 0 ? 'likewise' : '').padEnd(LABEL)) + line)
    .join('\n');
}

function cut(text: string, width: number): string {
  const room = Math.max(width, 20);
  return text.length > room ? `${text.slice(0, room - 1)}…` : text;
}
