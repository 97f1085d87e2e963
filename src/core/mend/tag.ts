import { flatMap } from '../lists.js';
import { getAttribute, readMarkup, type Markup, type MarkupElement } from '../markup/markup.js';
import { readStyleAttribute, type StyleDeclaration } from '../markup/styles.js';
import type { Edit, Span } from '../snippet.js';
import { applyEdits } from './apply.js';

/** What is to change in a start tag. */
export interface AttributeChange {
  /** By name: the value to set (null: the bare name); null to take the attribute out. */
  attributes: Readonly<Record<string, { value: string | null } | null>>;
  /** Properties to set in its style attribute. */
  styles: Readonly<Record<string, string>>;
}

/**
 * The edits that change a start tag; what is not named stays as it is written. Null where the tag, read
 * back, would say anything else than what is wanted.
 */
export function editAttributes(
  markup: Markup,
  element: MarkupElement,
  change: AttributeChange,
): Edit[] | null {
  const edits = writeChange(markup, element, change);
  return isFaithful(markup, element, change, edits) ? edits : null;
}

/** Whether the tag reads as before in all that is not to change, and has what is. */
function isFaithful(
  markup: Markup,
  { offset, tagEnd, name }: MarkupElement,
  { attributes, styles }: AttributeChange,
  edits: readonly Edit[],
): boolean {
  const inTag = edits.map((edit) => ({
    offset: edit.offset - offset,
    endOffset: edit.endOffset - offset,
    text: edit.text,
  }));
  const text = markup.text.slice(offset, tagEnd);
  const [before, after] = [text, applyEdits(text, inTag)].map((one) => readTag(one, name));
  if (!before || !after) return false;
  const wanted = new Map(before.attributes.map((one) => [one.name, one.value]));
  for (const [key, value] of Object.entries(attributes)) {
    if (value === null) wanted.delete(key);
    else wanted.set(key, value.value ?? '');
  }
  const styled = Object.keys(styles).length > 0;
  const [kept, found] = [[...wanted], after.attributes.map((one) => [one.name, one.value])].map(
    (list) => JSON.stringify(list.filter(([key]) => !styled || key !== 'style').sort(byName)),
  );
  return kept === found && (!styled || isStyleFaithful(before, after, styles));
}

function byName([a = '']: string[], [b = '']: string[]): number {
  return a < b ? -1 : 1;
}

type Tag = Pick<MarkupElement, 'attributes'> & { styles: Map<string, string> };

/** A start tag alone. Its name does not matter to its attributes, but to whether it may stand by itself. */
function readTag(text: string, name: string): Tag | null {
  const markup = readMarkup(`<x-a${text.slice(1 + name.length)}`);
  const [element, more] = markup.elements;
  if (!element || more) return null;
  const styles = readStyleAttribute(markup, element);
  const sign = (one: StyleDeclaration) => `${one.value}${one.important ? ' !important' : ''}`;
  return {
    attributes: element.attributes,
    styles: new Map(styles.map((one) => [one.property, sign(one)])),
  };
}

function isStyleFaithful(before: Tag, after: Tag, styles: Readonly<Record<string, string>>) {
  const names = new Set([...before.styles.keys(), ...after.styles.keys(), ...Object.keys(styles)]);
  return [...names].every((name) => {
    const now = after.styles.get(name);
    const wanted = styles[name];
    return wanted === undefined
      ? now === before.styles.get(name)
      : now?.replace(/ !important$/, '') === wanted;
  });
}

function writeChange(
  markup: Markup,
  element: MarkupElement,
  { attributes, styles }: AttributeChange,
): Edit[] {
  const edits: Edit[] = [];
  const added: string[] = [];
  for (const [name, wanted] of Object.entries(attributes)) {
    const known = getAttribute(element, name);
    const text = wanted === null ? '' : writeAttribute(name, wanted.value);
    if (!known) added.push(text);
    else edits.push(wanted === null ? takeOut(markup, known) : { ...getSpan(known), text });
  }
  const style = Object.keys(styles).length > 0 ? editStyle(markup, element, styles) : [];
  if (typeof style === 'string') added.push(style);
  else edits.push(...style);
  const text = added
    .filter(Boolean)
    .map((one) => ` ${one}`)
    .join('');
  const at = getRoom(element);
  return text === '' ? edits : [...edits, { offset: at, endOffset: at, text }];
}

/** Behind the last attribute, or else behind the name. */
function getRoom(element: MarkupElement): number {
  const ends = element.attributes.map(({ endOffset }) => endOffset);
  return Math.max(
    element.offset + 1 + element.name.length,
    ...ends.filter((end) => end < element.tagEnd),
  );
}

function getSpan({ offset, endOffset }: Span): Span {
  return { offset, endOffset };
}

/** With the white space before it. */
function takeOut({ text }: Markup, { offset, endOffset }: Span): Edit {
  const before = /\s/.test(text[offset - 1] ?? '') ? 1 : 0;
  return { offset: offset - before, endOffset, text: '' };
}

function writeAttribute(name: string, value: string | null): string {
  if (value === null) return name;
  const quote = value.includes('"') && !value.includes("'") ? "'" : '"';
  const escaped = value
    .replaceAll('&', '&amp;')
    .replaceAll(quote, quote === '"' ? '&quot;' : '&#39;');
  return `${name}=${quote}${escaped}${quote}`;
}

/** The edits of a style attribute, or the text of a new one. */
function editStyle(
  markup: Markup,
  element: MarkupElement,
  styles: Readonly<Record<string, string>>,
): Edit[] | string {
  const attribute = getAttribute(element, 'style');
  const entries = Object.entries(styles);
  const written = entries.map(([name, value]) => `${name}: ${value}`).join('; ');
  if (!attribute) return writeAttribute('style', written);
  const known = readStyleAttribute(markup, element);
  const raw = markup.text.slice(attribute.offset, attribute.endOffset);
  const quote = /=\s*(["'])/.exec(raw)?.[1];
  const inPlace = quote !== undefined && known.every((one) => one.offset > attribute.offset);
  // Without quotes, or with character references in it, it is written anew as a whole.
  if (!inPlace)
    return [{ ...getSpan(attribute), text: rewriteStyle(attribute.value, known, styles) }];
  const edits = flatMap(entries, ([name, value]) =>
    known
      .filter(({ property }) => property === name)
      .map((one) => ({
        ...getSpan(one),
        text: `${name}: ${value}${one.important ? ' !important' : ''}`,
      })),
  );
  const missing = entries.filter(([name]) => !known.some(({ property }) => property === name));
  if (missing.length === 0) return edits;
  const end = attribute.endOffset - 1;
  const inner = attribute.value.trimEnd();
  const separator = inner.endsWith(';') ? ' ' : '; ';
  const text =
    (inner === '' ? '' : separator) +
    missing.map(([name, value]) => `${name}: ${value}`).join('; ');
  return [...edits, { offset: end, endOffset: end, text }];
}

function rewriteStyle(
  value: string,
  known: readonly StyleDeclaration[],
  styles: Readonly<Record<string, string>>,
): string {
  const kept = known.filter(({ property }) => !(property in styles));
  // What cannot be read as declarations is left as it is, and what is new put behind it.
  const before = known.length === 0 ? [value.trim().replace(/;$/, '')].filter(Boolean) : [];
  const parts = kept.map(
    ({ property, value: now, important }) => `${property}: ${now}${important ? ' !important' : ''}`,
  );
  const added = Object.entries(styles).map(([name, now]) => `${name}: ${now}`);
  return writeAttribute('style', [...before, ...parts, ...added].join('; '));
}
