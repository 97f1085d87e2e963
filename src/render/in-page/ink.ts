import { flatMap } from '../../core/lists.js';
import { MARKS, PAINTED } from '../../core/standards/elements.js';
import { listParents, round } from './shared.js';
import { cuts, getEdge } from './styles.js';

/** From where to where something shows, px of the page. */
export interface Ink {
  inkLeft: number;
  inkRight: number;
}

/**
 * What is painted of an element, and the room of its text.
 * @param detail asked for only where content is known to stick out: each text's boxes are dear
 */
export function getInk(
  node: Element,
  r: DOMRect,
  style: CSSStyleDeclaration,
  detail: boolean,
): Ink {
  const whole = !detail || paints(node, style);
  let [left, right] = whole ? [r.left, r.right] : [r.right, r.left];
  if (detail && r.width + r.height > 0) {
    // What it cuts off or scrolls itself shows within its box only.
    const cut = cuts(style.overflowX);
    for (const text of listOwnTexts(node)) {
      if (style.display !== 'inline') {
        left = Math.min(left, r.left + getEdge(style, 'left'));
        right = Math.max(right, r.right - getEdge(style, 'right'));
      }
      for (const piece of getRange(text).getClientRects()) {
        left = Math.min(left, cut ? Math.max(piece.left, r.left) : piece.left);
        right = Math.max(right, cut ? Math.min(piece.right, r.right) : piece.right);
      }
    }
  }
  if (detail) right = Math.max(right, getGenerated(node, r, style));
  return { inkLeft: round(left + window.scrollX), inkRight: round(right + window.scrollX) };
}

/** So many elements inside are looked at. */
const MOST_INSIDE = 100;

/**
 * How far boxes reach that a rule makes before or behind the content: they are no elements, but what is
 * around can be scrolled to their end. Minus infinity where something else reaches as far.
 */
function getGenerated(node: Element, r: DOMRect, style: CSSStyleDeclaration): number {
  const bare = globalThis.mivketNotebook.own(node);
  if (bare.scrollWidth <= bare.clientWidth || style.overflowX !== 'visible') return -Infinity;
  if (!generates(node)) return -Infinity;
  const end = r.left + bare.clientLeft + bare.scrollWidth;
  const inside = [...bare.querySelectorAll('*')].slice(0, MOST_INSIDE);
  const isElement = inside.some((one) => one.getBoundingClientRect().right >= end - 1);
  return isElement ? -Infinity : end;
}

/** Whether a rule makes a box before or behind its content. */
export function generates(node: Element): boolean {
  return ['::before', '::after'].some(
    (box) => !/^(none|normal)$/.test(getComputedStyle(node, box).content),
  );
}

/** Texts of an element's own that are more than white space. */
export function listOwnTexts(node: Element): ChildNode[] {
  return Array.from(globalThis.mivketNotebook.own(node).childNodes).filter(
    (child) => child.nodeType === Node.TEXT_NODE && child.nodeValue?.trim(),
  );
}

export function getRange(text: Node): Range {
  const range = globalThis.mivketNotebook.page.createRange();
  range.selectNodeContents(text);
  return range;
}

/** Where lines of an element's own text are, px of the window. */
export function listLines(node: Element): DOMRect[] {
  const lines = flatMap(listOwnTexts(node), (text) => Array.from(getRange(text).getClientRects()));
  return lines.filter(({ width, height }) => width > 0 && height > 0);
}

function paints(node: Element, style: CSSStyleDeclaration): boolean {
  return (
    PAINTED.has(globalThis.mivketNotebook.own(node).localName) ||
    !isClear(style.backgroundColor) ||
    style.backgroundImage !== 'none' ||
    style.boxShadow !== 'none' ||
    style.outlineStyle !== 'none' ||
    ['top', 'right', 'bottom', 'left'].some(
      (side) =>
        parseFloat(style.getPropertyValue(`border-${side}-width`)) > 0 &&
        !isClear(style.getPropertyValue(`border-${side}-color`)),
    )
  );
}

function isClear(colour: string): boolean {
  return /^transparent$|, 0\)$|\/ 0\)$/.test(colour);
}

/** The text of an element's own, without that of elements in it. */
export function getOwnText(node: Element): string {
  return listOwnTexts(node)
    .map((text) => text.nodeValue ?? '')
    .join(' ');
}

const LETTERS = /[\p{L}\p{N}]/u;

/** Whether there is something to read in a text. */
export function hasLetters(text: string): boolean {
  return LETTERS.test(text);
}

/** Whether it is small by its nature, or stands in what is: a link in a footnote's number is one too. */
export function isMark(real: Element): boolean {
  for (const node of listParents(real)) if (MARKS.has(node.localName)) return true;
  return false;
}

/** What an empty field shows in the place of what is to be written into it; '' where it shows none. */
export function getPlaceholder(node: Element): string {
  if (!/^(input|textarea)$/.test(node.localName)) return '';
  const { value = '', placeholder = '' } = node as Partial<HTMLInputElement>;
  return value === '' ? placeholder.trim() : '';
}
