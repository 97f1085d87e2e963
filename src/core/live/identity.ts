import { groupBy, mapPresent } from '../lists.js';
import { getValue, type Markup, type MarkupElement } from '../markup/markup.js';
import { parseAddress } from '../measure/site.js';
import { squeeze } from '../words/squeeze.js';

/** An element of a snippet, and one that stands for it on a page, by their numbers. */
export interface Anchor {
  own: number;
  at: number;
}

/** So many letters are nobody else's, by chance. */
const LONG = 12;

/** How elements are known. `weak`: others of the page may be known by the same. */
interface Way {
  weak: boolean;
  read: (element: MarkupElement, base: string) => string | null;
}

/** What is most their own comes first. */
const WAYS: readonly Way[] = [
  { weak: false, read: (one, base) => readAddress(one, base)?.href ?? null },
  { weak: false, read: (one) => getValue(one, 'id') || null },
  // Whoever serves it now: a house may have moved it to hosts of its own.
  { weak: false, read: (one, base) => readPath(one, base) },
  { weak: false, read: (one) => (getWords(one).length < LONG ? null : getWords(one)) },
  { weak: true, read: (one) => getValue(one, 'class') || null },
  { weak: true, read: (one) => [...listNames(one), getWords(one)].join(' ') },
];

/**
 * What of a snippet is known again on a page, in the ways that there are: each of its places there, the ways that
 * elements are most their own by first.
 */
export function* listAnchors(
  snippet: Markup,
  page: Markup,
  base: string,
): Generator<{ anchors: Anchor[]; weak: boolean }> {
  for (const { weak, read } of WAYS) {
    const getKey = (one: MarkupElement) => {
      const key = read(one, base);
      return key === null ? null : `${one.name} ${key}`;
    };
    const known = groupBy(page.elements, getKey);
    const own = groupBy(snippet.elements, getKey);
    const anchors = mapPresent(own, ([key, [first, ...rest]]) => {
      const found = key === null ? undefined : known.get(key);
      // If it is there twice in the snippet, each pair is one.
      const times = rest.length + 1;
      return found
        ?.filter((_, i) => i % times === 0)
        .map(({ index }): Anchor => ({ own: first!.index, at: index }));
    });
    for (const one of anchors) yield { anchors: one, weak };
  }
}

/** Its own, without those of elements in it: what is around has these too. */
function getWords({ text }: MarkupElement): string {
  return squeeze(text);
}

function listNames({ attributes }: MarkupElement): string[] {
  return attributes.map(({ name }) => name);
}

function readPath(element: MarkupElement, base: string): string | null {
  const pathname = readAddress(element, base)?.pathname ?? '';
  return pathname.length > 1 ? pathname : null;
}

function readAddress(element: MarkupElement, base: string): URL | null {
  for (const name of ['src', 'data', 'href', 'action', 'poster']) {
    const value = getValue(element, name)?.trim();
    if (value && !value.startsWith('#')) return parseAddress(value, base);
  }
  return null;
}
