import { REPLACED } from '../../core/standards/elements.js';
import type { Notebook } from './observe.js';

/** By how much each element's transforms scale what is in it, with all around it. */
let scales = new Map<Element, number>();

/** Forgets what was known: call it before a reading. */
export function beginScales(): void {
  scales = new Map();
}

/** By how much an element, with all around it, scales what is in it: transforms, zoom, the view boxes of drawings. */
export function getScale(real: Element, book: Notebook): number {
  return getTransformScale(real, book) * (real.currentCSSZoom ?? 1);
}

function getTransformScale(real: Element, book: Notebook): number {
  const known = scales.get(real);
  if (known !== undefined) return known;
  const parent = book.parentOf(real);
  const around = parent ? getTransformScale(parent, book) : 1;
  const own = around * getOwnScale(real);
  scales.set(real, own);
  return own;
}

/** What an element's own transform does, and of an svg its view box. */
function getOwnScale(node: Element): number {
  const { transform, scale, display } = getComputedStyle(node);
  // What stands in a line is not transformed (CSS Transforms 1, 2); what is drawn or replaced is.
  const inLine = display === 'inline' && !REPLACED.has(node.localName);
  if (inLine && !(node instanceof SVGElement)) return 1;
  const [x = 1, y = x] = scale === 'none' ? [] : scale.split(' ').map(Number);
  const moved = transform === 'none' ? 1 : getSize(new DOMMatrix(transform));
  return Math.sqrt(Math.abs(x * y)) * moved * getViewScale(node);
}

function getViewScale(node: Element): number {
  if (!(node instanceof SVGSVGElement) || node.viewBox.baseVal === null) return 1;
  const { width, height } = node.viewBox.baseVal;
  const [wide, high] = getViewSize(node);
  if (!width || !height || !wide || !high) return 1;
  const [x, y] = [wide / width, high / height];
  const fit = node.getAttribute('preserveAspectRatio') ?? '';
  if (/none/.test(fit)) return Math.sqrt(x * y);
  return /slice/.test(fit) ? Math.max(x, y) : Math.min(x, y);
}

/** The room of what is drawn, in the units around it: one within another has no box of its own. */
function getViewSize(node: SVGSVGElement): [number, number] {
  return node.ownerSVGElement
    ? [node.width.baseVal.value, node.height.baseVal.value]
    : [node.clientWidth, node.clientHeight];
}

/** By how much a matrix scales, turns and shears left out. */
function getSize({ a, b, c, d }: DOMMatrix): number {
  return Math.sqrt(Math.abs(a * d - b * c));
}
