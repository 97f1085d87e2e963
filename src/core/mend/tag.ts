import { getAttribute, type Markup, type MarkupElement } from '../markup/markup.js';
import { readStyleAttribute, type StyleDeclaration } from '../markup/styles.js';
import type { Edit, Span } from '../snippet.js';

/** What is to change in a start tag. */
export interface AttributeChange {
  /** By name: the value to set (null: the bare name); null to take the attribute out. */
  attributes: Readonly<Record<string, { value: string | null } | null>>;
  /** Properties to set in its style attribute. */
  styles: Readonly<Record<string, string>>;
}

/** The edits that change a start tag; what is not named stays as it is written. */
export function editAttributes(
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
  const edits = entries.flatMap(([name, value]) =>
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
