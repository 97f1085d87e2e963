import { clipsOn, scrollsOn } from './clip.js';
import { nextFrame } from './shared.js';

/** An element to begin a swipe on. */
export interface SwipePlace {
  id: number;
  /** What is inside scrolls, and is nearly as high as the window: nobody gets past it. */
  fills: boolean;
}

/** What is beside it has to be so wide for a finger, px (WCAG 2.2, 2.5.5 Target Size). */
const FINGER = 44;
/** An inner scroller of more of the window's height takes all swipes. */
const FILLS = 0.8;
const MOST = 4;

/** Those of the elements, all of them high, that a swipe could be caught on: without room beside them, and with reason to ask. */
export function listSwipePlaces(ids: readonly number[], touched: boolean): SwipePlace[] {
  const { nodes, own } = globalThis.mivketNotebook;
  const found: Element[] = [];
  const root = globalThis.mivketNotebook.page.documentElement;
  if (root.scrollHeight <= innerHeight + 1) return [];
  for (const id of ids) {
    const real = nodes.get(id);
    if (!real || found.length >= MOST || found.some((one) => one.contains(real))) continue;
    const box = own(real).getBoundingClientRect();
    const beside = Math.max(box.left, root.clientWidth - box.right);
    if (beside < FINGER && isSuspect(real, touched)) found.push(real);
  }
  return found.map((real) => toSwipePlace(real));
}

/** A frame, a scroller, something whose styles take swipes; where code listens for them anything. */
function isSuspect(real: Element, touched: boolean): boolean {
  const style = getComputedStyle(real);
  const frame = /^(iframe|embed|object)$/.test(real.localName);
  const takes = !/^(auto|manipulation|pan-y|.*pan-y.*)$/.test(style.touchAction);
  return frame || takes || isScroller(real, style) || touched;
}

function isScroller(real: Element, style: CSSStyleDeclaration): boolean {
  return clipsOn(style, 'y') && scrollsOn(style, 'y') && real.scrollHeight > real.clientHeight + 1;
}

function toSwipePlace(real: Element): SwipePlace {
  const { idOf, own } = globalThis.mivketNotebook;
  const height = own(real).getBoundingClientRect().height;
  const fills = isScroller(real, getComputedStyle(real)) && height > innerHeight * FILLS;
  return { id: idOf(real), fills };
}

/** Where an element is, px of the window, and how far the page is scrolled and can be still, px. */
export interface Brought {
  x: number;
  y: number;
  above: number;
  below: number;
}

/** Brings an element to the middle of the window, scrolls all in it to the end. */
export async function bringForSwipe(id: number): Promise<Brought> {
  const { nodes, own, page } = globalThis.mivketNotebook;
  const real = nodes.get(id)!;
  real.scrollIntoView({ block: 'center', inline: 'nearest', behavior: 'instant' });
  for (const inner of [real, ...real.querySelectorAll('*')])
    if (inner.scrollHeight > inner.clientHeight) inner.scrollTop = inner.scrollHeight;
  await nextFrame();
  const box = own(real).getBoundingClientRect();
  // A page that is too wide is shown smaller at first; a finger is put on what is shown.
  const { scale, width, height, offsetLeft, offsetTop } = window.visualViewport ?? WHOLE;
  const across = clamp(box.left + box.width / 2 - offsetLeft, width);
  const down = clamp(box.top + box.height / 2 - offsetTop, height);
  const above = getTop();
  const below = page.documentElement.scrollHeight - above - height;
  return { x: across * scale, y: down * scale, above, below };
}

const WHOLE = { scale: 1, width: innerWidth, height: innerHeight, offsetLeft: 0, offsetTop: 0 };
/** So far from the edge of the glass a finger is put down, px. */
const EDGE = 100;

function clamp(at: number, size: number): number {
  const edge = Math.min(EDGE, size / 3);
  return Math.min(Math.max(at, edge), size - edge);
}

/** Asked in a frame: scrolls its document to the end, where it passes on what it does not need. */
export function scrollToEnd(): boolean {
  const { scrollingElement, documentElement } = globalThis.mivketNotebook.page;
  const scroller = scrollingElement ?? documentElement;
  scroller.scrollTop = scroller.scrollHeight;
  return true;
}

/**
 * How far the page is scrolled, px, once it is elsewhere than it was; at the latest after so many frames.
 * What a frame with a process of its own passes on comes later than what was asked for is drawn.
 */
export async function readScroll(before: number, least: number, frames: number): Promise<number> {
  for (let drawn = 0; drawn < frames; drawn++) {
    await nextFrame();
    if (drawn > 0 && Math.abs(getTop() - before) >= least) break;
  }
  return getTop();
}

/** A page that is shown larger or smaller may be moved under the glass without being scrolled. */
function getTop(): number {
  return window.visualViewport?.pageTop ?? window.scrollY;
}

/** Back to the top. */
export function scrollBack(): void {
  window.scrollTo({ top: 0, left: 0, behavior: 'instant' });
}
