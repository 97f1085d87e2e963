import type { Culprit } from '../check.js';
import type { ElementFact, Source } from '../evidence.js';
import {
  getElementAt,
  getElementFrom,
  getAttribute,
  getTagSpan,
  type Markup,
  type MarkupElement,
} from '../markup/markup.js';
import { findDeclaration, type StyleDeclaration } from '../markup/styles.js';
import type { Span } from '../snippet.js';

/** Where a measured fault is set in the source, and what could be changed there. */
export interface Blame {
  where: Span;
  culprit: Culprit;
  declaration: StyleDeclaration | null;
}

/** The blame of a usual case, for explaining a finding. */
export const SAMPLE_BLAME: Blame = {
  where: { offset: 0, endOffset: 0 },
  culprit: { at: 'element', offset: 0 },
  declaration: null,
};

const SIZE = ['width', 'inline-size', 'min-width', 'min-inline-size', 'flex-basis', 'flex'];
const PLACE = [
  'margin-right',
  'margin-left',
  'margin-inline',
  'margin',
  'left',
  'right',
  'inset',
  'transform',
  'translate',
];
const TEXT = ['white-space', 'word-break', 'overflow-wrap'];
const TRACKS = [
  'grid-template-columns',
  'grid-template',
  'grid-auto-columns',
  'flex-wrap',
  'flex-flow',
];

/** As much of an element as tells where its width is set. */
export type Sized = Pick<ElementFact, 'from' | 'selector' | 'box'>;

/**
 * The smallest piece of the source that sets an element's width, or puts it where it sticks out:
 * declaration, attribute, else its tag.
 * @param room the width there is, px
 */
export function blameWidth(
  markup: Markup,
  fact: Sized,
  { by = 'box', room = 0 }: { by?: 'box' | 'ink'; room?: number } = {},
): Blame {
  const blame = blameElement(markup, fact);
  const element = getBlamed(markup, blame);
  if (!element) return blame;
  // What would fit by its width is in the wrong place.
  const boxes = fact.box.width > room ? [SIZE, PLACE] : [PLACE, SIZE];
  const groups = by === 'ink' ? [TEXT] : boxes;
  for (const group of groups) {
    const declaration =
      group.map((name) => findDeclaration(markup, element, [name])).find(Boolean) ?? null;
    if (declaration && sets(declaration)) return at(blame, declaration);
    const attribute = group === SIZE ? getAttribute(element, 'width') : null;
    if (attribute) return { ...blame, where: getSpan(attribute) };
  }
  const tracks =
    by === 'box' && element.parent ? findDeclaration(markup, element.parent, TRACKS) : null;
  return tracks ? at(blame, tracks) : blame;
}

/** `max-width: 100%` and the like are no cause. */
function sets({ property, value }: StyleDeclaration): boolean {
  return !(SIZE.includes(property) && /^(auto|0|none|initial)$/.test(value));
}

function at(blame: Blame, declaration: StyleDeclaration): Blame {
  return { ...blame, where: getSpan(declaration), declaration };
}

function getSpan({ offset, endOffset }: Span): Span {
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
    return { where, culprit: { at: 'element', offset: from.offset }, declaration: null };
  }
  const script = from.script === null ? null : getElementFrom(markup, from.script);
  const where = script ? getTagSpan(script) : getHead(markup);
  return { where, culprit: { at: 'made', selector: selector ?? '' }, declaration: null };
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

/** The beginning of a snippet, where nothing in it is to be pointed at. */
export function getHead({ text }: Markup): Span {
  return { offset: 0, endOffset: Math.min(text.length, 80) };
}

/** The offset in the snippet that something comes from: the element's, or its script's; null where none is known. */
export function getSourceOffset(from: Source | null): number | null {
  if (from === null) return null;
  return 'offset' in from ? from.offset : from.script;
}
