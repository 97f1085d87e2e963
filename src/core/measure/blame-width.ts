import type { CauseFact, ElementFact, Facts } from '../evidence.js';
import type { Markup, MarkupElement } from '../markup/markup.js';
import type { StyleDeclaration } from '../markup/styles.js';
import type { Intent } from '../mend/intent.js';
import { REPLACED } from '../standards/elements.js';
import { getReason, pickCause, type Reason } from '../trial/cause.js';
import { findCure } from '../trial/targets.js';
import { blameElement, getBlamed, SAMPLE_BLAME, type Blame } from './blame.js';

/** Where a width that is too large is set in the source, and what could be changed there. */
export interface WidthBlame extends Blame {
  reason: Reason;
  /** The element's name; '' for text that stands in none. */
  tag: string;
  declaration: StyleDeclaration | null;
  /** As written, where an attribute sets it. */
  attribute: string | null;
  /** The element's measured box, px. */
  width: number;
  /** Causes and cures were looked for by trying. */
  tried: boolean;
  /** What was seen to cure it wherever it was seen; null where nothing was. */
  cure: Intent[] | null;
  /** That in words. */
  change: string | null;
}

/** The blame of a usual case, for explaining a finding. */
export const SAMPLE_WIDTH_BLAME: WidthBlame = {
  ...SAMPLE_BLAME,
  reason: 'size',
  tag: 'div',
  declaration: null,
  attribute: null,
  width: 0,
  tried: false,
  cure: null,
  change: null,
};

/** The blames of several usual cases. */
export const SAMPLE_WIDTH_BLAMES: WidthBlame[] = [
  sample('size', 'width', '640px'),
  sample('place', 'margin', '0 -30px'),
  sample('text', 'white-space', 'nowrap'),
  { ...SAMPLE_WIDTH_BLAME, reason: 'text' },
  sample('row', 'display', 'flex'),
  { ...SAMPLE_WIDTH_BLAME, culprit: { at: 'made', selector: '' }, maker: 'static.bookbed.example' },
];

function sample(reason: Reason, property: string, value: string): WidthBlame {
  const marks = { selector: null, important: false, inMedia: false, media: null };
  const declaration = { property, value, offset: 0, endOffset: 0, ...marks };
  return { ...SAMPLE_WIDTH_BLAME, reason, declaration };
}

/** As much of an element as tells what it is. */
export type ToBlame = Pick<ElementFact, 'from' | 'selector' | 'box' | 'tag'>;

/** What was found by trying. */
export interface TriedBlame {
  causes: Facts['causes'];
  /** null where it was not tried. */
  cause: CauseFact | null;
  /** The room that there is, px: what would fit by its own width is in the wrong place. */
  room: number;
}

/**
 * What makes an element too wide: the declaration or attribute that was found by taking it out; where
 * none was, its tag.
 */
export function blameWidth(
  markup: Markup,
  fact: ToBlame,
  { causes, cause, room }: TriedBlame,
): WidthBlame {
  const blame: WidthBlame = {
    ...SAMPLE_WIDTH_BLAME,
    ...blameElement(markup, fact),
    reason: 'content',
    tag: fact.tag,
    width: fact.box.width,
    tried: cause !== null,
  };
  const cure = cause && findCure(causes, cause);
  const found = cause && pickCause(markup, cause, { cure, fits: fact.box.width <= room });
  if (found) {
    const { where, declaration, attribute } = found;
    return { ...blame, where, declaration, attribute, reason: getReason(found) };
  }
  const element = getBlamed(markup, blame);
  return { ...blame, reason: element && holdsText(element) ? 'text' : 'content' };
}

/** Text of its own, or lines that are kept as they are. */
function holdsText(element: MarkupElement): boolean {
  if (REPLACED.has(element.name)) return false;
  return element.name === 'pre' || element.text.trim() !== '';
}
