import stringWidth from 'string-width';
import type { Candidate, Comparison } from '../core/compare/candidates.js';
import { formatPixels, formatTime, formatWire } from '../core/measure/units.js';
import type { Finding } from '../core/run.js';
import { nameWindows } from '../core/compare/pictures.js';
import { countWords, joinWords } from '../core/words/list.js';
import { cleanLine } from './clean.js';
import type { FormatMeans } from './table.js';
import { SHAPES } from './text-grid.js';
import { formatTable } from './text-table.js';
import { wrap } from './wrap.js';

/** What the text needs besides. */
export type ComparedMeans = Pick<FormatMeans, 'paint' | 'width'>;

/** On what page they were looked at. */
export function describeWhere({ house }: Comparison): string {
  const page = house === null ? 'a neutral page: there is no house file' : `the page of ${house}`;
  return `Side by side on ${page}.`;
}

/** Of which not all was seen, and why. */
export function listUnseen({ candidates }: Comparison): string[] {
  return candidates
    .filter(({ unseen }) => unseen.length > 0)
    .map(({ name, unseen }) => `Not all of ${name} was seen: ${unseen.join('; ')}.`);
}

/** Where they look alike, and where not. */
export function listLooks({ pictures }: Comparison): string[] {
  const tell = (alike: boolean, words: string) => {
    const rows = pictures.filter((one) => one.alike === alike);
    return rows.length > 0 ? [`${words} in ${nameWindows(rows)}.`] : [];
  };
  return [...tell(true, 'They look alike'), ...tell(false, 'They look different')];
}

/** A line of the table: what it is about, and what it is with each. */
export interface Row {
  what: string;
  values: string[];
}

/** Candidates side by side; where there is no room for that, one below the other. */
export function formatComparison(comparison: Comparison, means: ComparedMeans): string {
  const { candidates } = comparison;
  const parts = [
    wrap(cleanLine(describeWhere(comparison)), means.width, '  '),
    formatRows('', listMeasures(comparison), candidates, means),
    formatFindings(comparison, means),
    wrapAll(listUnseen(comparison), means),
    wrapAll(listLooks(comparison), means),
    wrapAll(listBest(comparison), means),
  ];
  return `${parts.filter(Boolean).join('\n\n')}\n`;
}

function wrapAll(lines: readonly string[], { width }: ComparedMeans): string {
  return lines.map((line) => wrap(cleanLine(line), width, '    ', '  ')).join('\n');
}

const NOTHING = '–';
const UNKNOWN = 'not known';

/** What is measured of each, a line each. */
export function listMeasures({ candidates }: Comparison): Row[] {
  const rows = candidates.map(toRows);
  return rows[0]!.map(([what], i) => ({ what, values: rows.map((one) => one[i]![1]) }));
}

function toRows(one: Candidate): [what: string, value: string][] {
  const { verdict, counts, fits, fitsFrom, code, wire, requests, hosts, scripts, stored } = one;
  const { scriptTime } = one;
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
    ['script time', scriptTime === null ? NOTHING : formatTime(scriptTime)],
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

/** What only some have, or have more often, a line each. */
export function listDifferences({ findings }: Comparison): (Row & { level: Finding['level'] })[] {
  return findings.map(({ id, level, counts }) => ({
    level,
    what: id,
    values: counts.map((count) => (count === 0 ? NOTHING : String(count))),
  }));
}

/** Above what only some have, and before what all have. */
export const [IN_SOME, IN_ALL] = ['found in some', 'found in all'];

function formatFindings(comparison: Comparison, means: ComparedMeans) {
  const { candidates, common } = comparison;
  const rows = listDifferences(comparison).map(({ what, level, values }) => ({
    what: `${SHAPES[level]} ${what}`,
    values,
  }));
  const table = rows.length > 0 ? formatRows(IN_SOME, rows, candidates, means) : '';
  const all =
    common.length > 0 ? wrap(`${IN_ALL}: ${common.join(', ')}`, means.width, '      ', '    ') : '';
  return [table, all].filter(Boolean).join('\n');
}

/** Which is lighter, which fits, which asks less. */
export function listBest({ lighter, fitting, lessAsking, candidates }: Comparison): string[] {
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
