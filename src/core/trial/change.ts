import type { Markup } from '../markup/markup.js';
import { formatDeclarations, type Intent } from '../mend/intent.js';

/** A change of what stands in the page, as a change of its source would make it. */
export type Change =
  /** A property of an element's style attribute; null: taken out. */
  | { do: 'style'; id: number; property: string; value: string | null }
  /** A div is put around it, with this for its style. */
  | { do: 'wrap'; id: number; style: string }
  /** null: taken out. */
  | { do: 'attribute'; id: number; name: string; value: string | null }
  /** A piece of a style element's text, put in another's place; `start` and `end` by the text as it stands in the page. */
  | { do: 'text'; id: number; start: number; end: number; text: string };

/** The elements of a page that stand in the source, by the offset of their tag. */
export type Ids = ReadonlyMap<number, number>;

/** What intents do to the page; null where that is more than styles and attributes. */
export function toChanges(markup: Markup, ids: Ids, intents: readonly Intent[]): Change[] | null {
  const changes: Change[] = [];
  for (const intent of intents) {
    const found = toChange(markup, ids, intent);
    if (found === null) return null;
    changes.push(...found);
  }
  return changes;
}

function toChange(markup: Markup, ids: Ids, intent: Intent): Change[] | null {
  if (intent.do === 'ask') return null;
  if (intent.do === 'replace-text') return replaceIn(markup, ids, intent);
  const id = ids.get(intent.element);
  if (id === undefined) return null;
  if (intent.do === 'set-style')
    return Object.entries(intent.declarations).map(([property, value]) => ({
      do: 'style',
      id,
      property,
      value,
    }));
  if (intent.do === 'wrap')
    return [{ do: 'wrap', id, style: formatDeclarations(intent.declarations) }];
  const value = intent.do === 'set-attribute' ? (intent.value ?? '') : null;
  return [{ do: 'attribute', id, name: intent.name, value }];
}

/** A piece of a style element. */
export function replaceIn(
  { text, elements }: Markup,
  ids: Ids,
  { span, text: instead }: { span: { offset: number; endOffset: number }; text: string },
): Change[] | null {
  const { offset, endOffset } = span;
  const sheet = elements.find(
    (one) => one.name === 'style' && one.tagEnd <= offset && endOffset <= one.endOffset,
  );
  const id = sheet && ids.get(sheet.offset);
  if (!sheet || id === undefined) return null;
  // The parser makes one character of each line's end.
  const place = (at: number) =>
    at - sheet.tagEnd - (text.slice(sheet.tagEnd, at).match(/\r\n/g)?.length ?? 0);
  return [{ do: 'text', id, start: place(offset), end: place(endOffset), text: instead }];
}

/** Where a declaration, or an attribute, stands. */
export interface Standing {
  /** The tag that it stands on, by its offset; null in a sheet. */
  element: number | null;
  property: string;
  attribute: boolean;
  offset: number;
  endOffset: number;
}

/** Takes out what stands at a place: a declaration of a sheet or a tag, or an attribute. */
export function takeOut(markup: Markup, ids: Ids, standing: Standing): Change | null {
  return setTo(markup, ids, standing, null);
}

const WIDTH = /^(min-)?(width|inline-size)$|^flex-basis$/;

/** Makes a width that is stated very small; null for what is no width. */
export function makeSmall(markup: Markup, ids: Ids, standing: Standing): Change | null {
  if (!WIDTH.test(standing.property)) return null;
  return setTo(markup, ids, standing, standing.attribute ? '1' : '1px');
}

function setTo(
  markup: Markup,
  ids: Ids,
  { element, property, attribute, offset, endOffset }: Standing,
  value: string | null,
): Change | null {
  if (element === null) {
    const text = value === null ? '' : `${property}: ${value}`;
    return replaceIn(markup, ids, { span: { offset, endOffset }, text })?.[0] ?? null;
  }
  const id = ids.get(element);
  if (id === undefined) return null;
  return attribute
    ? { do: 'attribute', id, name: property, value }
    : { do: 'style', id, property, value };
}
