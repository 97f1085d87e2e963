import { listParents, makeInherited } from './shared.js';

/** An element that clips what stands in it, with the box to which it does, px of the window. */
export interface Clipper {
  node: Element;
  style: CSSStyleDeclaration;
  box: Edges;
}

export interface Edges {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

export type Axis = 'x' | 'y';

/**
 * The elements whose clipping an element is under, innermost first: what is put elsewhere escapes those it is
 * not put against.
 * @param inside what stands in it is meant, which it may clip itself
 */
export function* listClippers(real: Element, inside = false): Generator<Clipper> {
  const book = globalThis.mivketNotebook;
  const { documentElement: root, body } = book.page;
  let position = inside ? 'static' : getComputedStyle(real).position;
  const first = inside ? real : book.parentOf(real);
  for (let node = first; node; node = book.parentOf(node)) {
    if (node === root || node === body) return;
    const style = getComputedStyle(node);
    if (style.display === 'contents' || !holds(position, style)) continue;
    ({ position } = style);
    if (clipsOn(style, 'x') || clipsOn(style, 'y'))
      yield { node, style, box: getInside(node, style) };
  }
}

/** What is fixed is put against the window, what is absolute against the nearest that is positioned (CSS Positioned Layout 3, 2.1). */
export function holds(position: string, style: CSSStyleDeclaration): boolean {
  if (position === 'fixed') return isGround(style);
  return position === 'absolute' ? style.position !== 'static' || isGround(style) : true;
}

/** It is what fixed boxes in it are put against too. */
function isGround(style: CSSStyleDeclaration): boolean {
  return (
    [style.transform, style.translate, style.scale, style.rotate, style.perspective].some(
      (value) => value !== 'none',
    ) ||
    style.filter !== 'none' ||
    contains(style) ||
    /transform|perspective|filter/.test(style.willChange)
  );
}

function contains(style: CSSStyleDeclaration): boolean {
  return style.display !== 'inline' && /paint|strict|content/.test(style.contain);
}

/** Whether it cuts off what overflows, or scrolls it, to the sides or up and down. */
export function clipsOn(style: CSSStyleDeclaration, axis: Axis): boolean {
  const overflow = axis === 'x' ? style.overflowX : style.overflowY;
  if (style.display === 'inline') return false;
  return overflow !== 'visible' || contains(style);
}

/** Whether a visitor can scroll it there. */
export function scrollsOn(style: CSSStyleDeclaration, axis: Axis): boolean {
  return /^(auto|scroll)$/.test(axis === 'x' ? style.overflowX : style.overflowY);
}

/** The box within the border, px of the window. */
function getInside(node: Element, style: CSSStyleDeclaration): Edges {
  const r = globalThis.mivketNotebook.own(node).getBoundingClientRect();
  const border = (side: string) => parseFloat(style.getPropertyValue(`border-${side}-width`));
  return {
    left: r.left + border('left'),
    top: r.top + border('top'),
    right: r.right - border('right'),
    bottom: r.bottom - border('bottom'),
  };
}

/**
 * Whether nobody can scroll the page there. The body's overflow is the window's where the root's own is visible
 * (CSS Overflow 3, 3.3).
 */
export function isLocked({ documentElement, body }: Document, axis: Axis): boolean {
  const of = (node: Element) => {
    const style = getComputedStyle(node);
    return axis === 'x' ? style.overflowX : style.overflowY;
  };
  const own = of(documentElement);
  return /^(hidden|clip)$/.test(own === 'visible' && body ? of(body) : own);
}

/** What clips to this little shows nothing: it is for assistive technology, or closed, px. */
export const CLOSED = 2;
/** Clipping that leaves nothing of a box (CSS Masking 1). */
const NOTHING_LEFT = /^(inset\((5\d|[6-9]\d|100)(\.\d+)?%|circle\(0)/;

/** Whether an element or one around it clips at all: mostly none does. */
let mayClip = makeMayClip();

/** Forgets what was found of elements that were read before. */
export function beginClipping(): void {
  mayClip = makeMayClip();
}

function makeMayClip(): (real: Element) => boolean {
  return makeInherited(
    (node) => clipsSome(getComputedStyle(node)),
    () => globalThis.mivketNotebook.page.body,
  );
}

function clipsSome(style: CSSStyleDeclaration): boolean {
  return (
    clipsOn(style, 'x') || clipsOn(style, 'y') || style.clipPath !== 'none' || style.clip !== 'auto'
  );
}

/** Whether nothing of a text can be seen, nor be scrolled to: it is clipped away on purpose, or by a box that is too small. */
export function isClippedAway(real: Element, listLines: () => readonly Edges[]): boolean {
  if (!mayClip(real)) return false;
  const lines = listLines();
  if (lines.length === 0) return false;
  for (const node of listParents(real)) if (clipsAll(getComputedStyle(node))) return true;
  const open = new Set<Axis>(['x', 'y']);
  for (const { style, box } of listClippers(real, true))
    for (const axis of [...open]) {
      if (!clipsOn(style, axis)) continue;
      if (scrollsOn(style, axis)) open.delete(axis);
      else if (lines.every((line) => isBeyond(line, box, axis))) return true;
    }
  return false;
}

function clipsAll({ clip, clipPath, position }: CSSStyleDeclaration): boolean {
  if (NOTHING_LEFT.test(clipPath)) return true;
  if (clip === 'auto' || !/absolute|fixed/.test(position)) return false;
  const [top, right, bottom, left] = (clip.match(/-?[\d.]+/g) ?? []).map(Number);
  return right! - left! <= CLOSED || bottom! - top! <= CLOSED;
}

/** Whether a box is wholly outside of what clips it, or that is closed. */
export function isBeyond(line: Edges, clip: Edges, axis: Axis): boolean {
  const [start, end] = axis === 'x' ? (['left', 'right'] as const) : (['top', 'bottom'] as const);
  const isClosed = clip[end] - clip[start] <= CLOSED;
  return isClosed || line[end] <= clip[start] + 1 || line[start] >= clip[end] - 1;
}

/** Where an element can be seen at all, px of the window: as far as no clipping around it hides it. */
export function getVisibleArea(real: Element): Edges {
  const area = { left: 0, top: 0, right: innerWidth, bottom: innerHeight };
  for (const { style, box } of listClippers(real)) {
    if (clipsOn(style, 'x')) {
      area.left = Math.max(area.left, box.left);
      area.right = Math.min(area.right, box.right);
    }
    if (clipsOn(style, 'y')) {
      area.top = Math.max(area.top, box.top);
      area.bottom = Math.min(area.bottom, box.bottom);
    }
  }
  return area;
}
