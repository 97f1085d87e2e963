import { getCss } from '../markup/styles.js';
import type { Markup, MarkupElement } from '../markup/markup.js';
import type { Change, Ids } from './change.js';

/**
 * What the page of one source has to be changed by to become the page of another; null where the two differ
 * in more than attributes and the text of style elements.
 */
export function diffMarkup(before: Markup, after: Markup, ids: Ids): Change[] | null {
  if (before.elements.length !== after.elements.length) return null;
  const changes: Change[] = [];
  for (const [i, one] of before.elements.entries()) {
    const found = diffElement(before, one, after, after.elements[i]!, ids);
    if (found === null) return null;
    changes.push(...found);
  }
  return changes;
}

function diffElement(
  before: Markup,
  one: MarkupElement,
  after: Markup,
  other: MarkupElement,
  ids: Ids,
): Change[] | null {
  if (one.name !== other.name || one.parent?.index !== other.parent?.index) return null;
  const changes: Change[] = [];
  const id = ids.get(one.offset);
  const names = new Set([...one.attributes, ...other.attributes].map(({ name }) => name));
  for (const name of names) {
    const [was, now] = [one, other].map(
      ({ attributes }) => attributes.find((attribute) => attribute.name === name)?.value ?? null,
    );
    if (was === now) continue;
    if (id === undefined) return null;
    changes.push({ do: 'attribute', id, name, value: now! });
  }
  if (one.text === other.text) return changes;
  if (one.name !== 'style' || id === undefined) return null;
  const [was, now] = [getCss(before, one), getCss(after, other)].map(normalize) as [string, string];
  return [...changes, { do: 'text', id, start: 0, end: was.length, text: now }];
}

/** The parser makes one character of each line's end. */
function normalize(css: string): string {
  return css.replace(/\r\n?/g, '\n');
}
