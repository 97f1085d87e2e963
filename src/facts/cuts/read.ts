import { flatMap } from '../../core/lists.js';
import { FRAMES, MEDIA, UNSEEN } from '../../core/standards/elements.js';
import {
  CLOSED,
  clipsOn,
  isBeyond,
  isLocked,
  listClippers,
  scrollsOn,
  type Axis,
  type Clipper,
  type Edges,
} from '../../render/in-page/clip.js';
import { getRange, listOwnTexts } from '../../render/in-page/ink.js';
import type { ObjectReader } from '../../render/in-page/object-reader.js';
import { getSample, listParents, round } from '../../render/in-page/shared.js';
import type { OfElement } from '../common.js';
import type { CutFact } from './fact.js';

/** `clippedBy`: the number of the element that clips; null for the window. */
export type RawCut = Omit<CutFact, OfElement | 'by' | 'clipper'> & { clippedBy: number | null };

/** Letters' boxes are somewhat higher than their lines, and a blank hangs over a line's end. */
const LINE_SPARE = 0.25;
const BLANK = 5;
/** Pictures are trimmed by design; a control's middle has to be there. */
const HALF = 0.5;
/** Farther out is put out of sight by intent, px. */
const PARKED = 1000;
const MOST = 200;

const CONTROLS = new Set('button input select textarea summary'.split(' '));
const PICTURES = new Set(['img', 'svg', 'canvas', ...FRAMES, ...MEDIA]);

let found = 0;

export const readCut: ObjectReader<RawCut | null> = {
  begin: () => void (found = 0),
  fits: (real, node) =>
    found < MOST && !UNSEEN.has(node.localName) && node.localName !== 'option' && isPiece(real),
  read(real, node, book) {
    if (!node.checkVisibility({ opacityProperty: true, visibilityProperty: true })) return null;
    const piece = getPiece(real);
    if (piece.boxes.length === 0) return null;
    const cut = findCut(real, piece);
    if (!cut) return null;
    found++;
    const { axis, outside, whole, by } = cut;
    return {
      id: book.idOf(real),
      tag: node.localName,
      what: piece.what,
      sample: piece.sample,
      axis,
      outside: round(outside),
      whole,
      clippedBy: by && book.idOf(by),
    };
  },
};

/** What is to be seen of an element: its lines of text, or its box. */
interface Piece {
  what: CutFact['what'];
  sample: string;
  boxes: Edges[];
}

function isPiece(real: Element): boolean {
  // What is drawn is clipped by its view box, and what runs by itself comes by.
  if (real.closest('marquee') || real.parentElement?.closest('svg')) return false;
  return getObject(real) !== null || listOwnTexts(real).length > 0;
}

function getObject(real: Element): 'picture' | 'control' | null {
  const { localName } = globalThis.mivketNotebook.own(real);
  if (CONTROLS.has(localName)) return 'control';
  return PICTURES.has(localName) ? 'picture' : null;
}

function getPiece(real: Element): Piece {
  const object = getObject(real);
  if (object) {
    const r = globalThis.mivketNotebook.own(real).getBoundingClientRect();
    return { what: object, sample: '', boxes: r.width > 1 && r.height > 1 ? [r] : [] };
  }
  const texts = listOwnTexts(real);
  const sample = texts.map(({ nodeValue }) => nodeValue ?? '').join(' ');
  const boxes = flatMap(texts, (text) => Array.from(getRange(text).getClientRects()));
  return {
    what: 'text',
    sample: getSample(sample),
    boxes: boxes.filter(({ width, height }) => width > 1 && height > 1),
  };
}

interface Cut {
  axis: Axis;
  outside: number;
  whole: boolean;
  by: Element | null;
}

/** The first that cuts something off: what can be scrolled to is not cut, whatever is around the scroller. */
function findCut(real: Element, piece: Piece): Cut | null {
  const open = new Set<Axis>(['x', 'y']);
  for (const clipper of listClippers(real, piece.what === 'text')) {
    for (const axis of [...open]) {
      if (!clipsOn(clipper.style, axis)) continue;
      if (scrollsOn(clipper.style, axis)) open.delete(axis);
      else {
        const cut = measureCut(piece, clipper.box, axis);
        if (cut && isMeant(real, piece, clipper, axis)) return null;
        if (cut) return { axis, ...cut, by: clipper.node };
      }
    }
  }
  return findWindowCut(real, piece, open);
}

/** Where the page does not scroll, and for what is fixed to the window, that clips too. */
function findWindowCut(real: Element, piece: Piece, open: ReadonlySet<Axis>): Cut | null {
  const { page } = globalThis.mivketNotebook;
  const fixed = isFixed(real);
  const box = { left: 0, top: 0, right: page.documentElement.clientWidth, bottom: innerHeight };
  for (const axis of open) {
    if (!fixed && !isLocked(page, axis)) continue;
    const cut = measureCut(piece, box, axis);
    // What is wholly outside is parked there, to be moved in.
    if (cut && !(fixed && cut.whole) && !isParked(piece, box, axis))
      return { axis, ...cut, by: null };
  }
  return null;
}

function isFixed(real: Element): boolean {
  return [...listParents(real)].some((node) => getComputedStyle(node).position === 'fixed');
}

function measureCut(
  { what, boxes }: Piece,
  clip: Edges,
  axis: Axis,
): { outside: number; whole: boolean } | null {
  const [start, end] = axis === 'x' ? (['left', 'right'] as const) : (['top', 'bottom'] as const);
  if (clip[end] - clip[start] <= CLOSED) return null;
  let [most, whole] = [0, true];
  for (const box of boxes) {
    const size = box[end] - box[start];
    const outside = Math.max(clip[start] - box[start], box[end] - clip[end]);
    if (outside > getSpare(what, axis, size)) most = Math.max(most, outside);
    whole &&= isBeyond(box, clip, axis);
  }
  return most > 0 ? { outside: most, whole } : null;
}

/** So much of a piece of that size may be outside, px. */
function getSpare(what: Piece['what'], axis: Axis, size: number): number {
  if (what !== 'text') return size * HALF;
  return axis === 'y' ? size * LINE_SPARE : BLANK;
}

/** Something shows that there is more, moves it in, or has put it out of sight on purpose. */
function isMeant(real: Element, piece: Piece, { node, style, box }: Clipper, axis: Axis): boolean {
  if (piece.what === 'text' && axis === 'x' && hasEllipsis(real, node)) return true;
  if (hasLineClamp(real, node) || isParked(piece, box, axis)) return true;
  if (Math.min(box.right - box.left, box.bottom - box.top) <= CLOSED) return true;
  if (style.clipPath !== 'none' || isIndented(piece, box, axis, style)) return true;
  return isMoved(real, node);
}

/** A picture stands where the words were pushed aside. */
function isIndented(
  { boxes }: Piece,
  clip: Edges,
  axis: Axis,
  { textIndent }: CSSStyleDeclaration,
): boolean {
  const isAside = axis === 'x' && boxes.every((box) => isBeyond(box, clip, axis));
  return isAside && parseFloat(textIndent) !== 0;
}

function isParked({ boxes }: Piece, clip: Edges, axis: Axis): boolean {
  const far = Math.max(PARKED, innerWidth);
  return boxes.every((box) =>
    axis === 'x'
      ? box.right < clip.left - PARKED || box.left > clip.right + far
      : box.bottom < clip.top - PARKED,
  );
}

function hasEllipsis(real: Element, clipper: Element): boolean {
  return [...listParents(real, clipper)].some(
    (node) => getComputedStyle(node).textOverflow !== 'clip',
  );
}

function hasLineClamp(real: Element, clipper: Element): boolean {
  return [...listParents(real, clipper)].some((node) => {
    const clamp = getComputedStyle(node).getPropertyValue('-webkit-line-clamp');
    return clamp !== '' && clamp !== 'none';
  });
}

const MOVING = /all|transform|translate|left|right|top|bottom|inset|margin|height|width|grid|max/;

/** Something on the way is in motion, or will be when its state changes. */
function isMoved(real: Element, clipper: Element): boolean {
  return [...listParents(real, clipper)].some((node) => {
    const style = getComputedStyle(node);
    if (style.display === 'inline') return false;
    const changes = /[1-9]/.test(style.transitionDuration) && MOVING.test(style.transitionProperty);
    return changes || style.animationName !== 'none' || node.getAnimations().length > 0;
  });
}
