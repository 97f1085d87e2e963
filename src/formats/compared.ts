import stringWidth from 'string-width';
import type { Candidate, Comparison } from '../core/compare/candidates.js';
import { formatPixels, formatWire } from '../core/measure/units.js';
import { countWords, joinWords } from '../core/words/list.js';
import { cleanLine } from './clean.js';
import type { FormatMeans } from './table.js';
import { SHAPES } from './text-grid.js';
import { formatTable } from './text-table.js';
import { wrap } from './wrap.js';

/** What the text needs besides. */
export type ComparedMeans = Pick<FormatMeans, 'paint' | 'width'>;

/** On what page they were looked at. */
function formatWhere({ house }: Comparison, { width }: ComparedMeans): string {
  const page = house === null ? 'a neutral page: there is no house file' : `the page of ${house}`;
  return wrap(cleanLine(`Side by side on ${page}.`), width, '  ');
}

function formatUnseen(candidates: readonly Candidate[], { width }: ComparedMeans): string {
  return candidates
    .filter(({ unseen }) => unseen.length > 0)
    .map(({ name, unseen }) =>
      wrap(cleanLine(`Not all of ${name} was seen: ${unseen.join('; ')}.`), width, '    ', '  '),
    )
    .join('\n');
}

/** A line of the table: what it is about, and what it is with each. */
interface Row {
  what: string;
  values: string[];
}

/** Candidates side by side; where there is no room for that, one below the other. */
export function formatComparison(comparison: Comparison, means: ComparedMeans): string {
  const { candidates } = comparison;
  const rows = candidates.map(toRows);
  const measures = rows[0]!.map(([what], i) => ({ what, values: rows.map((one) => one[i]![1]) }));
  const parts = [
    formatWhere(comparison, means),
    formatRows('', measures, candidates, means),
    formatFindings(comparison, means),
    formatUnseen(candidates, means),
    formatBest(comparison)
      .map((line) => wrap(line, means.width, '    ', '  '))
      .join('\n'),
  ];
  return `${parts.filter(Boolean).join('\n\n')}\n`;
}

const NOTHING = '–';
const UNKNOWN = 'not known';

function toRows(one: Candidate): [what: string, value: string][] {
  const { verdict, counts, fits, fitsFrom, code, wire, requests, hosts, scripts, stored } = one;
  const count = (n: number | null) => (n === 0 ? NOTHING : (n?.toString() ?? UNKNOWN));
  return [
    ['verdict', verdict.toUpperCase()],
    ['blockers', count(counts.blocker)],
    ['concerns', count(counts.concern)],
    ['advice', count(counts.advice)],
    ['fits', tellFit(fits, fitsFrom)],
    ['code', countWords(code, 'character')],
    ['on the wire', wire ? formatWire(wire) : count(wire)],
    ['requests', count(requests)],
    ['other hosts', requests === null && hosts.length === 0 ? UNKNOWN : count(hosts.length)],
    ['their scripts', count(scripts)],
    ['stored', count(stored)],
    ...one.heights.map(({ slot, viewport, height }): [string, string] => [
      `height in ${cleanLine(slot)}, ${cleanLine(viewport)}`,
      height === null ? UNKNOWN : formatPixels(height),
    ]),
  ];
}

function tellFit(fits: boolean | null, fitsFrom: number | null): string {
  if (fits) return 'everywhere';
  if (fitsFrom !== null) return `from ${Math.ceil(fitsFrom)} px`;
  return fits === null ? UNKNOWN : 'not everywhere';
}

function formatRows(
  title: string,
  rows: readonly Row[],
  candidates: readonly Candidate[],
  { paint, width }: ComparedMeans,
): string {
  const names = candidates.map(({ name }) => cleanLine(name));
  const cells = rows.map(({ what, values }) => toCells(what, values));
  const heads = toCells(title, names);
  const lines = formatTable(heads, cells, paint);
  if (lines.every((line) => stringWidth(line) <= width)) return lines.join('\n');
  return names
    .map((name, i) => {
      const own = rows.map(({ what, values }) => `    ${what}: ${values[i]}`);
      return [`  ${paint.strong(name)}`, ...own].join('\n');
    })
    .join('\n');
}

function toCells(what: string, values: readonly string[]): Record<string, string> {
  return Object.fromEntries([['what', what], ...values.map((value, i) => [`of ${i}`, value])]);
}

function formatFindings({ findings, common, candidates }: Comparison, means: ComparedMeans) {
  const rows = findings.map(({ id, level, counts }) => ({
    what: `${SHAPES[level]} ${id}`,
    values: counts.map((count) => (count === 0 ? NOTHING : String(count))),
  }));
  const title = 'found in some';
  const table = rows.length > 0 ? formatRows(title, rows, candidates, means) : '';
  const all =
    common.length > 0
      ? wrap(`found in all: ${common.join(', ')}`, means.width, '      ', '    ')
      : '';
  return [table, all].filter(Boolean).join('\n');
}

function formatBest({ lighter, fitting, lessAsking, candidates }: Comparison): string[] {
  const isKnown = candidates.every(({ unseen }) => unseen.length === 0);
  const tell = (what: string, names: readonly string[], same: string) => {
    if (names.length > 0) return `${what}: ${cleanLine(joinWords(names))}.`;
    return isKnown ? `${same}.` : `${same}, as far as is known.`;
  };
  const fits = candidates.every((one) => one.fits);
  return [
    tell('Lighter', lighter, 'Equally heavy on the wire'),
    tell('Fits better', fitting, fits ? 'All fit everywhere' : 'None fits better'),
    tell('Asks less of visitors', lessAsking, 'None asks less of visitors in every respect'),
  ];
}
