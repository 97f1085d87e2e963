import { getContrast } from '../../core/measure/contrast.js';
import type { TextFact } from '../../facts/texts/fact.js';
import { readPaint } from './colours.js';
import { listLines } from './ink.js';
import { listParents } from './shared.js';

/** What a rule for a first line may make otherwise, as far as it is read. */
const PARTS = ['color', 'font-size', 'font-weight', '-webkit-text-fill-color'] as const;

/** How its letters look; of several looks the one that stands out least. */
export function getFaintest(real: Element, slot: Element | null) {
  const looks = listLooks(real).map((style) => ({ style, paint: readPaint(real, slot, style) }));
  return looks.reduce((a, b) => (getStrength(b.paint) < getStrength(a.paint) ? b : a));
}

function getStrength({ colour, ground }: Pick<TextFact, 'colour' | 'ground'>): number {
  return colour !== null && ground !== null ? getContrast(colour, ground) : Infinity;
}

/**
 * The looks that an element's own letters are painted with: its own, and that of the first line of the block that it
 * stands in (CSS Pseudo-Elements 4, 2.1), where a rule gives that another. One that no letter has is left out.
 */
function listLooks(real: Element): CSSStyleDeclaration[] {
  const own = getComputedStyle(real);
  const block = findBlock(real);
  const first = block && getComputedStyle(block, '::first-line');
  const whole = block === real ? own : block && getComputedStyle(block);
  if (!first || !whole || PARTS.every((part) => isAlike(part, first, whole))) return [own];
  // What an element on it states itself is painted over it.
  if (!PARTS.every((part) => isAlike(part, own, whole))) return [own];
  const end = getFirstLineEnd(block);
  const lines = listLines(real);
  const on = lines.filter(({ top, height }) => top + height / 2 < end);
  if (on.length === 0) return [own];
  return on.length === lines.length ? [first] : [own, first];
}

function isAlike(
  part: (typeof PARTS)[number],
  one: CSSStyleDeclaration,
  other: CSSStyleDeclaration,
): boolean {
  return one.getPropertyValue(part) === other.getPropertyValue(part);
}

/** The nearest that lines are laid out in. */
function findBlock(real: Element): Element | null {
  for (const node of listParents(real))
    if (!/^(inline|contents)$/.test(getComputedStyle(node).display)) return node;
  return null;
}

/** Where the first line of a block ends, px of the window. */
function getFirstLineEnd(block: Element): number {
  const range = globalThis.mivketNotebook.page.createRange();
  range.selectNodeContents(block);
  const boxes = Array.from(range.getClientRects()).filter(({ height }) => height > 0);
  const first = Math.min(...boxes.map(({ top }) => top));
  return Math.min(...boxes.filter(({ top }) => top < first + 1).map(({ bottom }) => bottom));
}
