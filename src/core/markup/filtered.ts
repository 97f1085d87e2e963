import type { House } from '../house/house.js';
import type { Span } from '../snippet.js';
import { getTagSpan, type Markup, type MarkupElement } from './markup.js';

/** Something that a site does to code when it takes it in. */
export interface Alteration {
  what: 'element' | 'attribute' | 'cut' | 'break';
  /** The element's or the attribute's name. */
  name: string;
  where: Span;
  element: MarkupElement | null;
}

type Filter = NonNullable<House['filter']>;

/** All that the house's filter takes out of a snippet or puts into it, as far as that changes anything. */
export function listAlterations(markup: Markup, filter: Filter): Alteration[] {
  const names = filter.remove.map((one) => one.toLowerCase());
  const elements = names.filter((one) => !one.startsWith('@'));
  const attributes = names.filter((one) => one.startsWith('@')).map((one) => one.slice(1));
  const gone = new Set<MarkupElement>();
  const found: Alteration[] = [];
  for (const element of markup.elements) {
    if (element.parent && gone.has(element.parent)) gone.add(element);
    else if (elements.some((one) => fits(one, element.name))) {
      gone.add(element);
      found.push({ what: 'element', name: element.name, where: getTagSpan(element), element });
    }
    if (gone.has(element)) continue;
    for (const { name, offset, endOffset } of element.attributes)
      if (attributes.some((one) => fits(one, name)))
        found.push({ what: 'attribute', name, where: { offset, endOffset }, element });
  }
  return [...found, ...listBreaks(markup, filter), ...listCut(markup, filter)];
}

/** `on*`: whatever begins so. */
function fits(pattern: string, name: string): boolean {
  const own = name.toLowerCase();
  return pattern.endsWith('*') ? own.startsWith(pattern.slice(0, -1)) : own === pattern;
}

function listCut({ text }: Markup, { maxLength = Infinity }: Filter): Alteration[] {
  if (text.trimEnd().length <= maxLength) return [];
  const where = { offset: maxLength, endOffset: text.length };
  return [{ what: 'cut', name: '', where, element: null }];
}

/** Elements that content systems leave as they are inside. */
const KEPT = new Set('pre script style textarea svg math select option'.split(' '));
/** Elements that are laid out in lines: a line break between two of them shows. */
const IN_LINES = new Set(
  'a abbr b button cite code em i iframe img input kbd label mark q s select small span strong sub sup time u video audio canvas object svg'.split(
    ' ',
  ),
);

/** Single line breaks inside a run of text and inline elements: they become `<br>`. Those beside blocks change nothing. */
function listBreaks(markup: Markup, { wrapLinesIn }: Filter): Alteration[] {
  if (wrapLinesIn === undefined) return [];
  const blocks = markup.elements.filter(({ name }) => !IN_LINES.has(name));
  const kept = markup.elements.filter(({ name }) => KEPT.has(name));
  const tags = markup.elements.map(getTagSpan);
  const isInside = (offset: number, spans: readonly Span[]) =>
    spans.some((span) => offset > span.offset && offset < span.endOffset);
  const edges = new Set(blocks.flatMap((one) => [one.offset, one.tagEnd, one.endOffset]));
  const found: Alteration[] = [];
  for (const match of markup.text.matchAll(/(?<=\S)[ \t]*\r?\n[ \t]*(?=\S)/g)) {
    const [from, to] = [match.index, match.index + match[0].length];
    const besideBlock = edges.has(from) || edges.has(to) || isClosing(markup, to, blocks);
    if (besideBlock || isInside(from, kept) || isInside(from, tags)) continue;
    // A blank alone is nothing to point at.
    const word = /\S{1,20}$/.exec(markup.text.slice(Math.max(0, from - 20), from))?.[0] ?? '';
    const where = { offset: from - word.length, endOffset: to };
    found.push({ what: 'break', name: 'br', where, element: null });
  }
  return found;
}

/** Whether the end tag of a block begins there. */
function isClosing({ text }: Markup, offset: number, blocks: readonly MarkupElement[]): boolean {
  const match = /^<\/([a-z][\w-]*)/i.exec(text.slice(offset, offset + 40));
  return match !== null && blocks.some(({ name }) => name === match[1]!.toLowerCase());
}
