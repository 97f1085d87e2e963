import { diffArrays } from 'diff';
import { flatMap, groupBy, mapPresent } from '../lists.js';
import { getValue, type Markup, type MarkupElement } from '../markup/markup.js';
import type { Span } from '../snippet.js';
import { listChanges, type LiveChange } from './changes.js';
import { listAnchors } from './identity.js';
import { squeeze } from '../words/squeeze.js';

/** A copy of a snippet on a page: where it stands, and what is otherwise in it. */
export interface Copy {
  span: Span;
  changes: LiveChange[];
}

/** Where a page's addresses are counted from, and whether it is known as it was sent: what its own code adds is no change else. */
export interface OnPage {
  base: string;
  asSent: boolean;
}

/** Between the elements of a snippet, its page may have put so many more. */
const SLACK = 12;
/** So many copies are told apart. */
const MOST = 20;
/** Where more is otherwise it is no longer looked in which order. */
const MOST_EDITS = 2000;

/**
 * The copies of a snippet in a page's markup, in their order. It is known by what is most its own: an address, an id, its
 * words; by what other elements may have too only where it is alike as a whole.
 */
export function findCopies(snippet: Markup, page: Markup, on: OnPage): Copy[] {
  const { length } = snippet.elements;
  if (length === 0) return findWords(snippet, page);
  for (const { anchors, weak } of listAnchors(snippet, page, on.base)) {
    const copies = mapPresent(anchors.slice(0, MOST), ({ own, at }) => {
      const { found, ...copy } = align(snippet, page, own, at, on);
      const isOther = weak && copy.changes.length >= length;
      return isOther || 2 * found < length ? null : copy;
    });
    if (copies.length > 0) return copies;
  }
  return [];
}

function align(snippet: Markup, page: Markup, own: number, at: number, on: OnPage) {
  const first = Math.max(at - own - SLACK, 0);
  const last = at + (snippet.elements.length - own) + SLACK;
  const near = page.elements.slice(first, last);
  const pairs = pair(snippet.elements, near, on.base, [own, at - first]);
  const matched = mapPresent(pairs, ({ other }) => other);
  const span = {
    offset: matched.reduce((least, { offset }) => Math.min(least, offset), Infinity),
    endOffset: matched.reduce((most, { endOffset }) => Math.max(most, endOffset), 0),
  };
  const changes = listChanges(snippet, page, pairs, span, on);
  return { span, changes, found: matched.length };
}

/** An element of the snippet, with the one that stands for it on the page; null where none does. */
export interface Pair {
  own: MarkupElement;
  other: MarkupElement | null;
}

/** Which stand for which: the anchor for its own, and before it and behind it what is alike, in the same order. */
function pair(
  own: readonly MarkupElement[],
  others: readonly MarkupElement[],
  base: string,
  [anchor, at]: [own: number, at: number],
): Pair[] {
  return [
    // Of several that are alike the nearest is meant.
    ...pairRun(own.slice(0, anchor).reverse(), others.slice(0, at).reverse(), base).reverse(),
    { own: own[anchor]!, other: others[at]! },
    ...pairRun(own.slice(anchor + 1), others.slice(at + 1), base),
  ];
}

function pairRun(
  own: readonly MarkupElement[],
  others: readonly MarkupElement[],
  base: string,
): Pair[] {
  const keys = [own, others].map((all) => all.map((one) => getKey(one, base)));
  const pairs: Pair[] = [];
  let [i, j] = [0, 0];
  let lost: MarkupElement[] = [];
  const settle = (extra: readonly MarkupElement[]) => {
    pairs.push(...pairByName(lost, extra));
    lost = [];
  };
  const limit = { maxEditLength: MOST_EDITS };
  const parts = diffArrays(keys[0]!, keys[1]!, limit) ?? [];
  if (parts.length === 0) return pairByName(own, others);
  for (const { added, removed, count } of parts) {
    if (removed) lost.push(...own.slice(i, (i += count)));
    else if (added) settle(others.slice(j, (j += count)));
    else {
      settle([]);
      for (let n = 0; n < count; n++) pairs.push({ own: own[i++]!, other: others[j++]! });
    }
  }
  settle([]);
  return pairs;
}

/** What is left between those that are alike: of one name, they stand for each other. */
function pairByName(lost: readonly MarkupElement[], extra: readonly MarkupElement[]): Pair[] {
  const free = groupBy(extra, ({ name }) => name);
  return lost.map((own) => ({ own, other: free.get(own.name)?.shift() ?? null }));
}

/** By this two elements are alike, whatever else is otherwise in them. */
function getKey(element: MarkupElement, base: string): string {
  const known = ['src', 'href', 'id', 'data'].map((name) => getValue(element, name) ?? '');
  const text = squeeze(element.text);
  return JSON.stringify([element.name, ...known.map((one) => resolve(one, base)), text]);
}

function resolve(value: string, base: string): string {
  return value !== '' && URL.canParse(value, base) ? new URL(value, base).href : value;
}

/** A snippet without any element is known by its words. */
function findWords({ text }: Markup, page: Markup): Copy[] {
  const words = squeeze(text);
  if (words === '') return [];
  return flatMap(page.elements, (one) =>
    squeeze(one.text).includes(words)
      ? [{ span: { offset: one.tagEnd, endOffset: one.endOffset }, changes: [] }]
      : [],
  );
}
