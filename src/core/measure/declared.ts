import { getAttribute, getValue, type Markup, type MarkupElement } from '../markup/markup.js';
import { findDeclaration, type StyleDeclaration } from '../markup/styles.js';
import type { Span } from '../snippet.js';

/** px of one em, roughly: enough to tell what pushes farther. */
const EM = 16;

/** Those that push an element to the right where their length is below zero. */
const BACKWARDS = /^(margin-right|margin-inline-end|right)$/;
const FORWARDS = /^(margin-left|margin-inline-start|left|transform|translate)$/;

/** `auto` and the like are no cause; `flex: none` keeps an item from shrinking. */
export function sets({ property, value }: StyleDeclaration): boolean {
  if (property === 'flex') return /^(none$|\d+ 0\b)|px/.test(value.trim());
  return !/^(auto|0|none|initial|inherit|unset|revert|0 1 auto|1)$/.test(value.trim());
}

/** Whether it is this declaration that came to count: in px the computed value tells. */
export function isComputed({ property, value }: StyleDeclaration, computed: string): boolean {
  if (!/^(width|inline-size)$/.test(property)) return true;
  const [written, now] = [value, computed].map((one) => /^([\d.]+)px$/i.exec(one.trim())?.[1]);
  if (written === undefined || computed === '') return true;
  return now !== undefined && Math.abs(Number(written) - Number(now)) < 1;
}

/** To which sides a length pushes is told by its sign. */
export function isSigned(property: string): boolean {
  return BACKWARDS.test(property) || FORWARDS.test(property);
}

/** How far a declaration pushes: px to the right; where it may be to either side, its size. */
export function getPush({ property, value }: StyleDeclaration): number {
  const lengths = [...value.matchAll(/(-?[\d.]+)(px|r?em|%|v\w+)/g)];
  const first = lengths.map(
    ([, n, unit]) => Number(n) * (unit === 'px' || unit === '%' ? 1 : EM),
  )[0];
  if (first === undefined) return isSigned(property) || /^0\b/.test(value) ? 0 : 1;
  if (BACKWARDS.test(property)) return -first;
  if (FORWARDS.test(property)) return first;
  const sizes = lengths.map(([, n, unit]) => Math.abs(Number(n)) * (unit === 'px' ? 1 : EM));
  return Math.max(...sizes);
}

/** The lengths in a value, px. */
export function listPixels(value: string): number[] {
  return [...value.matchAll(/([\d.]+)(px|r?em)/g)].map(
    ([, n, unit]) => Number(n) * (unit === 'px' ? 1 : EM),
  );
}

/** What states a width. */
export interface StatedWidth {
  where: Span;
  declaration: StyleDeclaration | null;
  /** As written, where an attribute states it. */
  attribute: string | null;
}

/** A width of an element's own in px that is more than the room; null where it has none. */
export function findFixed(
  markup: Markup,
  element: MarkupElement,
  room: number,
  window: number | null = null,
): StatedWidth | null {
  const found = findDeclaration(markup, element, ['min-width', 'width', 'inline-size'], window);
  const stated = found ? stateBy(found) : stateByAttribute(markup, element);
  const written = found?.value ?? getValue(element, 'width') ?? '';
  const px = /^([\d.]+)(px)?$/i.exec(written.trim())?.[1];
  return Number(px ?? 0) > room ? stated : null;
}

/** A declaration as what states a width. */
export function stateBy(declaration: StyleDeclaration): StatedWidth {
  const { offset, endOffset } = declaration;
  return { where: { offset, endOffset }, declaration, attribute: null };
}

/** The width attribute as what states a width; null where there is none. */
export function stateByAttribute({ text }: Markup, element: MarkupElement): StatedWidth | null {
  const attribute = getAttribute(element, 'width');
  if (!attribute) return null;
  const { offset, endOffset } = attribute;
  const where = { offset, endOffset };
  return { where, declaration: null, attribute: text.slice(offset, endOffset) };
}

/** What makes an element stand in one row with those beside it, however little room there is. */
export function findRow(
  markup: Markup,
  { parent }: MarkupElement,
  window: number | null = null,
): StyleDeclaration | null {
  const display = parent && findDeclaration(markup, parent, ['display'], window);
  if (!display || !/^(inline-)?flex\b/.test(display.value)) return null;
  const wraps = findDeclaration(markup, parent, ['flex-wrap', 'flex-flow'], window);
  if (!wraps) return display;
  return /\bwrap\b/.test(wraps.value) ? null : wraps;
}
