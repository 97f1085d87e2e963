import { flatMap } from '../lists.js';
import type { House } from '../house/house.js';
import type { Edit, Span } from '../snippet.js';
import { getTagSpan, type Markup, type MarkupElement } from './markup.js';

/** Something that a site does to code when it takes it in. */
export interface Alteration {
  what: 'element' | 'attribute' | 'cut' | 'break' | 'paragraph';
  /** The element's or the attribute's name. */
  name: string;
  where: Span;
  element: MarkupElement | null;
  edits: Edit[];
}

type Filter = NonNullable<House['filter']>;

const known = new WeakMap<Markup, { filter: Filter; found: Alteration[] }>();

/** All that the house's filter takes out of a snippet or puts into it, as far as that changes anything. */
export function listAlterations(markup: Markup, filter: Filter): Alteration[] {
  const before = known.get(markup);
  if (before?.filter === filter) return before.found;
  const found = findAlterations(markup, filter);
  known.set(markup, { filter, found });
  return found;
}

function findAlterations(markup: Markup, filter: Filter): Alteration[] {
  const names = filter.remove.map((one) => one.toLowerCase());
  const elements = names.filter((one) => !one.startsWith('@'));
  const attributes = names.filter((one) => one.startsWith('@')).map((one) => one.slice(1));
  const gone = new Set<MarkupElement>();
  const found: Alteration[] = [];
  for (const element of markup.elements) {
    if (element.parent && gone.has(element.parent)) gone.add(element);
    else if (elements.some((one) => fits(one, element.name))) {
      gone.add(element);
      const edits = [{ offset: element.offset, endOffset: element.endOffset, text: '' }];
      const { name } = element;
      found.push({ what: 'element', name, where: getTagSpan(element), element, edits });
    }
    if (gone.has(element)) continue;
    for (const { name, offset, endOffset } of element.attributes)
      if (attributes.some((one) => fits(one, name)))
        found.push({
          ...{ what: 'attribute', name, where: { offset, endOffset }, element },
          edits: [{ offset, endOffset, text: '' }],
        });
  }
  return [...found, ...listWraps(markup, filter), ...listCut(markup, filter)];
}

/** `on*`: whatever begins so. */
function fits(pattern: string, name: string): boolean {
  const own = name.toLowerCase();
  return pattern.endsWith('*') ? own.startsWith(pattern.slice(0, -1)) : own === pattern;
}

function listCut({ text }: Markup, { maxLength = Infinity }: Filter): Alteration[] {
  if (text.trimEnd().length <= maxLength) return [];
  const where = { offset: maxLength, endOffset: text.length };
  return [{ what: 'cut', name: '', where, element: null, edits: [{ ...where, text: '' }] }];
}

/** Elements that content systems leave as they are inside. */
const KEPT = new Set('pre script style textarea svg math select option'.split(' '));
/** Elements that are laid out in lines: a line break between two of them shows. */
const IN_LINES = new Set(
  'a abbr b button cite code em i iframe img input kbd label mark q s select small span strong sub sup time u video audio canvas object svg'.split(
    ' ',
  ),
);

function listWraps(markup: Markup, { wrapLinesIn }: Filter): Alteration[] {
  if (wrapLinesIn === undefined) return [];
  return [...listBreaks(markup), ...listParagraphs(markup, wrapLinesIn)];
}

/** Single line breaks inside a run of text and inline elements: they become `<br>`. Those beside blocks change nothing. */
function listBreaks(markup: Markup): Alteration[] {
  const blocks = markup.elements.filter(({ name }) => !IN_LINES.has(name));
  const kept = markup.elements.filter(({ name }) => KEPT.has(name));
  const tags = markup.elements.map(getTagSpan);
  const isInside = (offset: number, spans: readonly Span[]) =>
    spans.some((span) => offset > span.offset && offset < span.endOffset);
  const edges = new Set(flatMap(blocks, (one) => [one.offset, one.tagEnd, one.endOffset]));
  const found: Alteration[] = [];
  for (const match of markup.text.matchAll(/(?<=\S)[ \t]*\r?\n[ \t]*(?=\S)/g)) {
    const [from, to] = [match.index, match.index + match[0].length];
    const besideBlock = edges.has(from) || edges.has(to) || isClosing(markup, to, blocks);
    if (besideBlock || isInside(from, kept) || isInside(from, tags)) continue;
    // A blank alone is nothing to point at.
    const word = /\S{1,20}$/.exec(markup.text.slice(Math.max(0, from - 20), from))?.[0] ?? '';
    const where = { offset: from - word.length, endOffset: to };
    const edits = [{ offset: from, endOffset: from, text: '<br>' }];
    found.push({ what: 'break', name: 'br', where, element: null, edits });
  }
  return found;
}

/** A run of text and inline elements outside of all blocks gets an element around it. */
function listParagraphs(markup: Markup, name: string): Alteration[] {
  return listRuns(markup).map(({ offset, endOffset }): Alteration => {
    const first = /^(<[^>]*>|[^\s<]{1,20})/.exec(markup.text.slice(offset, endOffset));
    const where = { offset, endOffset: offset + (first?.[0].length ?? 1) };
    const edits = [
      { offset, endOffset: offset, text: `<${name}>` },
      { offset: endOffset, endOffset, text: `</${name}>` },
    ];
    return { what: 'paragraph', name, where, element: null, edits };
  });
}

/** Runs between blocks and blank lines in which something stands besides comments, without the blanks around. */
function listRuns({ text, elements }: Markup): Span[] {
  const top = elements.filter(({ parent }) => parent === null);
  const blocks = top.filter(({ name }) => !IN_LINES.has(name));
  const blanks = [...text.matchAll(/\r?\n[ \t]*\r?\n\s*/g)]
    .map(({ index, 0: { length } }) => ({ offset: index, endOffset: index + length }))
    .filter(({ offset }) => !top.some((one) => offset > one.offset && offset < one.endOffset));
  const ends = [...blocks, ...blanks, { offset: text.length, endOffset: text.length }];
  ends.sort((a, b) => a.offset - b.offset);
  const runs: Span[] = [];
  let at = 0;
  for (const { offset, endOffset } of ends) {
    const run = text.slice(at, offset);
    if (run.replace(/<!--[^]*?-->/g, '').trim() !== '')
      runs.push({ offset: at + run.search(/\S/), endOffset: at + run.trimEnd().length });
    at = Math.max(at, endOffset);
  }
  return runs;
}

/** Whether the end tag of a block begins there. */
function isClosing({ text }: Markup, offset: number, blocks: readonly MarkupElement[]): boolean {
  const match = /^<\/([a-z][\w-]*)/i.exec(text.slice(offset, offset + 40));
  return match !== null && blocks.some(({ name }) => name === match[1]!.toLowerCase());
}
