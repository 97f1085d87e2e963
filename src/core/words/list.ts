import type { Culprit, Fact, Range, Seen } from '../check.js';
import { mapPresent } from '../lists.js';
import { covers } from '../search/spans.js';

/** `a`, `a and b`, `a, b and c`. */
export function joinWords(words: readonly string[], last: 'and' | 'or' = 'and'): string {
  if (words.length < 2) return words.join('');
  return `${words.slice(0, -1).join(', ')} ${last} ${words.at(-1)}`;
}

/** The widths at which something was seen: `at 320, 390 and 768 px`; '' where it was seen nowhere. */
export function formatWidths(seen: readonly Seen<unknown>[]): string {
  return formatWindows({ seen });
}

/** The same, and wherever else it was searched for: `at 280 to 415 and 768 px`. */
export function formatWindows({
  seen,
  ranges = [],
}: {
  seen: readonly Seen<unknown>[];
  ranges?: readonly Range[];
}): string {
  const slots = [...new Set(mapPresent([...seen, ...ranges], ({ slot }) => slot ?? null))];
  const told = slots.map((slot) =>
    formatAll(
      seen.filter((one) => one.slot === slot),
      ranges.filter((range) => range.slot === undefined || range.slot === slot),
    ),
  );
  const whole = formatAll(seen, ranges);
  if (whole === '') return '';
  if (new Set(told).size < 2) return `at ${told[0] ?? whole} px`;
  if (ranges.length === 0 && told.includes(whole)) return `at ${whole} px`;
  return slots.map((slot, i) => `in “${slot}” at ${told[i]} px`).join(', ');
}

function formatAll(seen: readonly Seen<unknown>[], ranges: readonly Range[]): string {
  const isSearched = (width: number) => ranges.some((range) => covers(range, width));
  const widths = [...new Set(seen.map(({ width }) => width))].filter((one) => !isSearched(one));
  const single = widths.map((width) => ({ from: width, to: width, near: false }));
  const all = [...ranges, ...single].sort((a, b) => a.from - b.from);
  return joinWords(all.map(formatRange));
}

function formatRange({ from, to, near }: Range): string {
  return `${near ? 'about ' : ''}${from === to ? String(from) : `${from} to ${to}`}`;
}

/** The most px by which something is too wide, wherever it was seen or searched for. */
export function getMostOver({
  seen,
  ranges = [],
}: Pick<Fact<unknown, { overhang: number }>, 'seen' | 'ranges'>): number {
  return Math.max(
    ...seen.map(({ measured }) => measured.overhang),
    ...ranges.map(({ most = 0 }) => most),
    0,
  );
}

/** The sighting whose measure is largest. */
export function getWorstSeen<K extends string, M extends { [name in K]: number }>(
  seen: readonly Seen<M>[],
  measure: K,
): Seen<M> | null {
  const of = ({ measured }: Seen<M>) => measured[measure];
  return seen.reduce<Seen<M> | null>(
    (worst, one) => (worst === null || of(one) > of(worst) ? one : worst),
    null,
  );
}

/** The largest of one measure; 0 where it was seen nowhere. */
export function getMost<K extends string, M extends { [name in K]: number }>(
  seen: readonly Seen<M>[],
  measure: K,
): number {
  return getWorstSeen(seen, measure)?.measured[measure] ?? 0;
}

/** The beginning of a sentence. */
export function capitalize(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** The same within a sentence. */
export function decapitalize(text: string): string {
  return text.charAt(0).toLowerCase() + text.slice(1);
}

/** How something of the snippet is called: `<iframe>`, or, where a script made it, by its selector. */
export function nameElement(tag: string, culprit: Culprit): string {
  if (culprit.at !== 'made' || !culprit.selector) return `the <${tag}>`;
  const how = culprit.inRoot ? 'in the shadow root' : 'that a script made';
  return `the <${tag}> ${how} (${culprit.selector})`;
}

/** On one line, and no longer than that. */
export function shorten(text: string, most: number): string {
  const line = text.replace(/\s+/g, ' ');
  return line.length > most ? `${line.slice(0, most - 1)}…` : line;
}

/** `1 request`, `3 requests`. */
export function countWords(count: number, word: string): string {
  return `${count} ${word}${count === 1 ? '' : 's'}`;
}
