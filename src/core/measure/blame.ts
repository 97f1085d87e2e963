import type { Culprit } from '../check.js';
import type { RequestFact, Source } from '../evidence.js';
import {
  getElementAt,
  getElementFrom,
  getAttribute,
  getTagSpan,
  getValue,
  type Markup,
  type MarkupElement,
} from '../markup/markup.js';
import { isScript } from '../markup/traits.js';
import { parseAddress } from './site.js';
import type { Span } from '../snippet.js';

/** Where a measured fault is set in the source. */
export interface Blame {
  where: Span;
  culprit: Culprit;
  /** For what a script made: the host that the script comes from; null for one in the snippet. */
  maker?: string | null;
}

/** The blame of a usual case, for explaining a finding. */
export const SAMPLE_BLAME: Blame = {
  where: { offset: 0, endOffset: 0 },
  culprit: { at: 'element', offset: 0 },
};

/** An element, at its tag or at what is pointed at. */
export function atTag(element: MarkupElement, where: Span = getTagSpan(element)): Blame {
  return { where, culprit: { at: 'element', offset: element.offset } };
}

/** Where a tag stands that is known by its place alone. */
export function atSpan(where: Span): Blame {
  return { where, culprit: { at: 'element', offset: where.offset } };
}

/** A part of an element, as a rule an attribute by its name. */
export function atPart({ offset }: MarkupElement, part: string, where: Span): Blame {
  return { where, culprit: { at: 'element', offset, part } };
}

/** What is no one element's. */
export function atSnippet(what: string, where: Span): Blame {
  return { where, culprit: { at: 'snippet', what } };
}

/** A span alone of what has one. */
export function getSpan({ offset, endOffset }: Span): Span {
  return { offset, endOffset };
}

/** The element in the source; for what a script made, the script's tag. */
export function blameElement(
  markup: Markup,
  { from, selector }: { from: Source; selector: string | null },
): Blame {
  if ('offset' in from) {
    const element = getElementFrom(markup, from.offset) ?? getElementAt(markup, from.offset);
    const where = element ? getTagSpan(element) : { offset: from.offset, endOffset: from.offset };
    return { where, culprit: { at: 'element', offset: from.offset } };
  }
  const script = from.script === null ? null : getElementFrom(markup, from.script);
  const root = script ? null : findShadowRoot(markup);
  const maker = script ?? root;
  const where = maker ? getTagSpan(maker) : getHead(markup);
  const culprit: Culprit = { at: 'made', selector: selector ?? '', ...(root && { inRoot: true }) };
  const host = script && parseAddress(getValue(script, 'src') ?? '', UNKNOWN)?.hostname;
  return { where, culprit, maker: host === UNKNOWN_HOST ? null : (host ?? null) };
}

/** What the page's own address stands for where a script's is looked at. */
const UNKNOWN_HOST = 'page.invalid';
const UNKNOWN = `https://${UNKNOWN_HOST}/`;

/** Without a script what is not in the markup's tree stands in a shadow root of the markup's. */
function findShadowRoot(markup: Markup): MarkupElement | null {
  if (markup.elements.some(isScript)) return null;
  return markup.elements.find((one) => getValue(one, 'shadowrootmode') !== null) ?? null;
}

/** The element to blame, where it stands in the source. */
export function getBlamed(
  markup: Markup,
  { culprit }: Pick<Blame, 'culprit'>,
): MarkupElement | null {
  if (culprit.at !== 'element') return null;
  return getElementFrom(markup, culprit.offset) ?? getElementAt(markup, culprit.offset);
}

/** The attribute to point at, of an element that is in the source; else the element, or what made it. */
export function locateAttribute(markup: Markup, blame: Blame, ...names: string[]): Span {
  const element = getBlamed(markup, blame);
  const found = element && names.map((name) => getAttribute(element, name)).find(Boolean);
  return found ? getSpan(found) : blame.where;
}

/** The same, to be told of. */
export function atAttribute(markup: Markup, blame: Blame, ...names: string[]): Blame {
  return { ...blame, where: locateAttribute(markup, blame, ...names) };
}

/** The beginning of a snippet, where nothing in it is to be pointed at. */
export function getHead({ text }: Markup): Span {
  return { offset: 0, endOffset: Math.min(text.length, 80) };
}

/** The offset in the snippet that something comes from: the element's, or its script's; null where none is known. */
export function getSourceOffset(from: Source | null): number | null {
  if (from === null) return null;
  return 'offset' in from ? from.offset : from.script;
}

/** The tag of what asked for something; where that is not known, the first script's or the first of all. */
export function findRequestTag(markup: Markup, { from }: Pick<RequestFact, 'from'>): Span {
  const offset = getSourceOffset(from);
  const element = offset === null ? null : getElementAt(markup, offset);
  const fallback = markup.elements.find(({ name }) => name === 'script') ?? markup.elements[0];
  const found = element ?? fallback;
  return found ? getTagSpan(found) : { offset: 0, endOffset: 0 };
}
