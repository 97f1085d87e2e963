import { UNSEEN } from '../../core/standards/elements.js';
import { getOwnText, hasLetters, isMark } from './ink.js';
import { beginScales, getScale } from './scale.js';
import { getSample, round } from './shared.js';

/** How large the smallest text of a document is, px, and how it begins. */
export interface SmallestText {
  size: number;
  sample: string;
}

/** So many elements are looked at. */
const MOST = 2000;
/** What is smaller is not there to be read, px. */
const LEAST = 3;

/** The smallest text that shows in the document this is asked in; null where it has none. */
export function findSmallest(): SmallestText | null {
  const book = globalThis.mivketNotebook;
  beginScales();
  let smallest: SmallestText | null = null;
  for (const real of [...book.page.querySelectorAll('body, body *')].slice(0, MOST)) {
    const node = book.own(real);
    if (UNSEEN.has(node.localName) || !isSeen(node)) continue;
    const text = getOwnText(real);
    if (!hasLetters(text) || isMark(real)) continue;
    const size = round(parseFloat(getComputedStyle(real).fontSize) * getScale(real, book));
    if (size >= LEAST && size < (smallest?.size ?? Infinity))
      smallest = { size, sample: getSample(text) };
  }
  return smallest;
}

function isSeen(node: Element): boolean {
  const { width, height } = node.getBoundingClientRect();
  const seen = node.checkVisibility({ opacityProperty: true, visibilityProperty: true });
  return seen && width > 1 && height > 1;
}
