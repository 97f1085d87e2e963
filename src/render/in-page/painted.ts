import { SLOT_ATTRIBUTE } from '../../core/host/slot-attribute.js';
import { PAINTED } from '../../core/standards/elements.js';
import type { Box } from '../../core/evidence.js';
import { flatMap, mapPresent } from '../../core/lists.js';
import { listClippers } from './clip.js';
import { readPaint } from './colours.js';
import { listLines } from './ink.js';
import { listParents, makeInherited, nextFrame } from './shared.js';
import { findSlot } from './slots.js';

/** An element that is to be looked at in a picture of the window, px of that. */
export interface PaintedPiece {
  id: number;
  box: Box;
}

/** What there is to be looked at in the window as it stands. */
export interface View {
  /** How far the page is scrolled, px. */
  left: number;
  top: number;
  /** The window's width without its scroll bar, px. */
  clientWidth: number;
  /** Parts of the page around, whole and free to be seen. */
  host: PaintedPiece[];
  /** Where boxes of the snippet's are. */
  own: Box[];
  /** Some of these are not in the window, or are otherwise at another instant. */
  beyond: boolean;
  /** Letters of the snippet's. */
  texts: PaintedPiece[];
  /** What is behind the slot, `#rrggbb`; null where that is no plain colour. */
  ground: string | null;
}

/** Whose elements are looked for. */
export interface ViewWish {
  slot: string;
  /** Parts of the page around that say something. */
  host: readonly number[];
  own: readonly number[];
  texts: readonly number[];
}

/** Where the slot begins and ends, px of the page. */
export function findSlotEdges(name: string): { top: number; bottom: number } | null {
  const slot = findSlot(globalThis.mivketNotebook.page, name);
  if (!slot) return null;
  const { top, bottom } = slot.getBoundingClientRect();
  return { top: top + scrollY, bottom: bottom + scrollY };
}

export async function readView({ slot, host, own, texts }: ViewWish): Promise<View> {
  await awaitMotion();
  isRestless = makeInherited(runs);
  const place = findSlot(globalThis.mivketNotebook.page, slot);
  const ownIds = new Set(own);
  const held = flatMap(own, listHeld);
  const boxes = mapPresent(own, (id) => getBox(id));
  return {
    left: scrollX,
    top: scrollY,
    clientWidth: getClientWidth(),
    host: mapPresent(host, (id) => toHostPiece(id, ownIds, held)),
    own: mapPresent(boxes, cutToWindow),
    beyond:
      listReal(own).some((real) => isRestless(real)) ||
      boxes.some((box) => !isInWindow(box) && !isOffPage(box)),
    texts: mapPresent(texts, (id) => toTextPiece(id, ownIds)),
    ground: place && readPaint(place, null).ground,
  };
}

/** What is less wide or high is not looked at, px. */
const LEAST = 4;
/** What stays in the window and takes less of it leaves room to scroll the rest there. */
const MUCH = 0.5;

function listReal(ids: readonly number[]): Element[] {
  return mapPresent(ids, (id) => globalThis.mivketNotebook.nodes.get(id));
}

function getBox(id: number): Box | null {
  const real = globalThis.mivketNotebook.nodes.get(id);
  const box = real && toBox(globalThis.mivketNotebook.own(real).getBoundingClientRect());
  return box && box.width > 0 && box.height > 0 ? box : null;
}

function toBox({ left, top, width, height }: DOMRect): Box {
  return { x: left, y: top, width, height };
}

/** What a visitor gets out of the way by scrolling. */
function listHeld(id: number): Box[] {
  const real = globalThis.mivketNotebook.nodes.get(id);
  if (!real || !/fixed|sticky/.test(getComputedStyle(real).position)) return [];
  const box = getBox(id);
  return box && box.width * box.height < MUCH * innerWidth * innerHeight ? [box] : [];
}

/** What comes into view may move in, frames. */
const PATIENCE = 90;

async function awaitMotion(): Promise<void> {
  const isMoving = (one: Animation) =>
    one.playState === 'running' && Number.isFinite(one.effect?.getComputedTiming().endTime);
  for (let frames = 0; frames < PATIENCE; frames++) {
    if (!globalThis.mivketNotebook.page.getAnimations().some(isMoving)) return;
    await nextFrame();
  }
}

/** It, or something around it, moves without an end: at another instant it is painted otherwise. */
let isRestless = makeInherited(runs);

function runs(real: Element): boolean {
  const all = globalThis.mivketNotebook.own(real).getAnimations();
  return all.some(({ playState }) => playState === 'running');
}

/** Nobody can scroll there. */
function isOffPage({ x, y, width, height }: Box): boolean {
  return x + scrollX + width <= 0 || y + scrollY + height <= 0;
}

function isInWindow({ x, y, width, height }: Box): boolean {
  return x >= 0 && y >= 0 && x + width <= getClientWidth() + 1 && y + height <= innerHeight;
}

function getClientWidth(): number {
  return globalThis.mivketNotebook.page.documentElement.clientWidth;
}

function cutToWindow({ x, y, width, height }: Box): Box | null {
  const [left, top] = [Math.max(0, x), Math.max(0, y)];
  const right = Math.min(innerWidth, x + width);
  const bottom = Math.min(innerHeight, y + height);
  return right - left >= 1 && bottom - top >= 1
    ? { x: left, y: top, width: right - left, height: bottom - top }
    : null;
}

function meet(a: Box, b: Box): boolean {
  return a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;
}

/** In its whole length the page lies over nothing of it itself; of the snippet nothing that stays in the window. */
function toHostPiece(
  id: number,
  own: ReadonlySet<number>,
  held: readonly Box[],
): PaintedPiece | null {
  const real = globalThis.mivketNotebook.nodes.get(id);
  const box = getBox(id);
  if (!real || !box || box.width < LEAST || box.height < LEAST || !isInWindow(box)) return null;
  if (held.some((one) => meet(one, box)) || !isStill(real) || isRestless(real)) return null;
  const isFree = [0.1, 0.5, 0.9].every((along) => {
    const hit = hitAt(box.x + along * box.width, box.y + box.height / 2);
    return hit === null || belongs(real, hit) || isOwnLayer(hit, own);
  });
  return isFree ? { id, box } : null;
}

/** Nothing plays in it. */
function isStill(real: Element): boolean {
  const moving = 'video, iframe, object, embed, canvas';
  const node = globalThis.mivketNotebook.own(real);
  return !node.matches(moving) && node.querySelector(`${moving}, [${SLOT_ATTRIBUTE}]`) === null;
}

function hitAt(x: number, y: number): Element | null {
  return globalThis.mivketNotebook.page.elementFromPoint(x, y);
}

function belongs(real: Element, hit: Element): boolean {
  return hit === real || real.contains(hit) || hit.contains(real);
}

/** It is the snippet's, and goes away with the page: what stays in the window is told of by what it covers. */
function isOwnLayer(hit: Element, own: ReadonlySet<number>): boolean {
  const { idOf } = globalThis.mivketNotebook;
  const around = [...listParents(hit)];
  const isOwn = around.some((one) => own.has(idOf(one)));
  return isOwn && !around.some((one) => getComputedStyle(one).position === 'fixed');
}

/** Where its letters are, unless something with content of its own lies over them. */
function toTextPiece(id: number, own: ReadonlySet<number>): PaintedPiece | null {
  const real = globalThis.mivketNotebook.nodes.get(id);
  if (!real || isRestless(real)) return null;
  const [box] = listLines(real)
    .map(toBox)
    .filter(({ width, height }) => width >= LEAST && height >= LEAST);
  if (!box || !isInWindow(box) || isCut(real, box)) return null;
  const hit = hitAt(box.x + box.width / 2, box.y + box.height / 2);
  if (hit === null || belongs(real, hit)) return { id, box };
  const isOwn = own.has(globalThis.mivketNotebook.idOf(hit));
  return isOwn && isEmptyLayer(hit) ? { id, box } : null;
}

/** It is scrolled out of a box around it, or cut off there: it is brought in by use, or told of by what cuts it. */
function isCut(real: Element, { x, y, width, height }: Box): boolean {
  return [...listClippers(real, true)].some(
    ({ box }) => x < box.left || y < box.top || x + width > box.right || y + height > box.bottom,
  );
}

function isEmptyLayer(hit: Element): boolean {
  const node = globalThis.mivketNotebook.own(hit);
  return !PAINTED.has(node.localName) && node.childElementCount === 0 && !node.textContent?.trim();
}
