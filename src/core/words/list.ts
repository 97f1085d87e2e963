import type { Culprit, Seen } from '../check.js';

/** `a`, `a and b`, `a, b and c`. */
export function joinWords(words: readonly string[], last: 'and' | 'or' = 'and'): string {
  if (words.length < 2) return words.join('');
  return `${words.slice(0, -1).join(', ')} ${last} ${words.at(-1)}`;
}

/** The widths at which something was seen: `at 320, 390 and 768 px`; '' where it was seen nowhere. */
export function formatWidths(seen: readonly Seen[]): string {
  const widths = [...new Set(seen.map(({ width }) => width))].sort((a, b) => a - b);
  return widths.length === 0 ? '' : `at ${joinWords(widths.map(String))} px`;
}

/** The sighting whose measure is largest. */
export function getWorstSeen(seen: readonly Seen[], measure: string): Seen | null {
  const of = (one: Seen) => Number(one.measured[measure] ?? 0);
  return seen.reduce<Seen | null>(
    (worst, one) => (worst === null || of(one) > of(worst) ? one : worst),
    null,
  );
}

/** The beginning of a sentence. */
export function capitalize(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
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
