import type { Finding } from '../core/run.js';
import { getMendedLines } from '../core/mend/apply.js';
import { formatBytes, formatPixels } from '../core/measure/units.js';
import { joinWords } from '../core/words/list.js';
import { clean, cleanLine } from './clean.js';
import { makeCodeFrame } from './code-frame.js';
import type { Paint } from './paint.js';
import { SHAPES } from './text-grid.js';
import { wrap } from './wrap.js';

const INDENT = '    ';
const LABEL = 11;
const LONGEST_LINE = 400;

/** One finding: level, name, place; the source with a caret; what was measured, noticed, to change. */
export function formatFinding(
  finding: Finding,
  text: string,
  { paint, width }: { paint: Paint; width: number },
  renders: number,
): string {
  const { where, level } = finding;
  const waived = finding.waiver && !finding.waiver.expired ? ' · waived' : '';
  const guess = finding.confirmed ? '' : ' · from the markup alone';
  const head = wrap(
    `${paint[level](`${SHAPES[level]} ${level}`)}  ${paint.strong(finding.id)}  ${paint.faint(`line ${where.line}, column ${where.column}${guess}${waived}`)}`,
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

function formatWaiver(waiver: Finding['waiver']): string {
  if (!waiver) return '';
  const by = waiver.by === null ? '' : ` (${waiver.by})`;
  return waiver.expired
    ? `ran out on ${waiver.until}, so it counts as none: ${waiver.reason}${by}`
    : `until ${waiver.until}: ${waiver.reason}${by}`;
}

/** What was measured, with units, where it was seen; alike sightings are told once. */
function formatMeasured({ seen }: Finding, renders: number): string {
  const told = new Map<string, Finding['seen']>();
  for (const one of seen) {
    const words = Object.entries(one.measured).flatMap(([name, value]) =>
      formatMeasure(name, value),
    );
    const key = words.join(', ');
    told.set(key, [...(told.get(key) ?? []), one]);
  }
  const manySlots = new Set(seen.map(({ slot }) => slot)).size > 1;
  return [...told]
    .filter(([words]) => words)
    .map(
      ([words, places]) =>
        `${places.length === renders && renders > 1 ? 'everywhere' : formatPlaces(places, manySlots)}: ${words}`,
    )
    .join('; ');
}

/** `320, 390`, or with several slots `article and sidebar at 320, 390`: slots with the same widths together. */
function formatPlaces(places: Finding['seen'], manySlots: boolean): string {
  const widths = new Map<string, string[]>();
  for (const { slot, width } of places)
    widths.set(slot, [...(widths.get(slot) ?? []), String(width)]);
  if (!manySlots) return `at ${[...widths.values()].flat().join(', ')}`;
  const slots = new Map<string, string[]>();
  for (const [slot, list] of widths)
    slots.set(list.join(', '), [...(slots.get(list.join(', ')) ?? []), slot]);
  return [...slots].map(([list, names]) => `${joinWords(names)} at ${list}`).join(', ');
}

const PIXELS = /(width|height|overhang)$/i;
const WORDS: Record<string, string> = {
  overhang: 'sticks out by',
  scrollWidth: 'page width',
  windowWidth: 'window',
  elementWidth: 'its width',
  frameWidth: 'frame',
  slotWidth: 'slot',
  wireBytes: 'on the wire',
  unpackedBytes: 'unpacked',
  limitBytes: 'limit',
  waitedMs: 'waited',
  soundTrack: 'sound track',
  readyState: '',
  frames: 'frames shown',
};

function formatMeasure(name: string, value: string | number | boolean | null): string[] {
  const word = WORDS[name] ?? name;
  if (word === '' || value === null || (name === 'at' && value === 'load')) return [];
  if (typeof value === 'boolean') return [`${word}: ${value ? 'yes' : 'no'}`];
  if (typeof value === 'string') return [`${word}: ${value}`];
  if (/Bytes$/.test(name)) return [`${word} ${formatBytes(value)}`];
  if (/Ms$/.test(name)) return [`${word} ${Math.round(value)} ms`];
  return [`${word} ${PIXELS.test(name) ? formatPixels(value) : value}`];
}
