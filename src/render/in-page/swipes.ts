import { clipsOn, scrollsOn } from './clip.js';
import { nextFrame } from './shared.js';

/** A place to begin a swipe on, px of the window. */
export interface SwipePlace {
  id: number;
  x: number;
  y: number;
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
  return found.map((real) => describe(real));
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

function describe(real: Element): SwipePlace {
  const { idOf, own } = globalThis.mivketNotebook;
  const height = own(real).getBoundingClientRect().height;
  const fills = isScroller(real, getComputedStyle(real)) && height > innerHeight * FILLS;
  return { id: idOf(real), x: 0, y: 0, fills };
}

/** Brings an element to the middle of the window, scrolls all in it to the end, and tells where it is, px of the window. */
export async function bringForSwipe(id: number): Promise<{ x: number; y: number; top: number }> {
  const { nodes, own } = globalThis.mivketNotebook;
  const real = nodes.get(id)!;
  real.scrollIntoView({ block: 'center', inline: 'nearest', behavior: 'instant' });
  for (const inner of [real, ...real.querySelectorAll('*')])
    if (inner.scrollHeight > inner.clientHeight) inner.scrollTop = inner.scrollHeight;
  await nextFrame();
  const box = own(real).getBoundingClientRect();
  const middle = Math.min(Math.max(box.top + box.height / 2, 40), innerHeight - 40);
  return { x: box.left + box.width / 2, y: middle, top: window.scrollY };
}

/** Asked in a frame: scrolls its document to the end, where it passes on what it does not need. */
export function scrollToEnd(): boolean {
  const { scrollingElement, documentElement } = globalThis.mivketNotebook.page;
  const scroller = scrollingElement ?? documentElement;
  scroller.scrollTop = scroller.scrollHeight;
  return true;
}

/** How far the page is scrolled, once what was asked for is drawn, px. */
export async function readScroll(): Promise<number> {
  await nextFrame();
  await nextFrame();
  return window.scrollY;
}

/** Back to the top. */
export function scrollBack(): void {
  window.scrollTo({ top: 0, left: 0, behavior: 'instant' });
}
