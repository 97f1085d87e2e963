import { mapPresent } from '../../core/lists.js';
import { SLOT_ATTRIBUTE } from '../../core/host/slot-attribute.js';
import { FRAMES, MEDIA } from '../../core/standards/elements.js';
import { getVisibleArea } from '../../render/in-page/clip.js';
import { getSample, listParents, toPageBox, walk } from '../../render/in-page/shared.js';
import type { Box } from '../common.js';

/** What is covered, with the numbers of both elements. */
export interface RawCovered {
  id: number;
  tag: string;
  what: 'frame' | 'player' | 'control';
  name: string;
  box: Box;
  /** It stands in one of the slots. */
  inSlot: boolean;
  by: { id: number; tag: string; control: boolean };
}

const SLOT = `[${SLOT_ATTRIBUTE}]`;
const CONTROLS =
  'a[href], button, input:not([type=hidden]), select, textarea, summary, [role=button], [role=link], [role=menuitem], [role=tab], [tabindex="0"]';
const TARGETS = `iframe, embed, object, video, audio[controls], ${CONTROLS}`;
/** What is smaller is for keyboards or for counting only, px. */
const TINY = 4;
const MOST = 400;
/** The middle, and those between it and the corners. */
const POINTS = [
  [0.5, 0.5],
  [0.25, 0.25],
  [0.75, 0.25],
  [0.25, 0.75],
  [0.75, 0.75],
] as const;

/** Points at all that can be pointed at, as a mouse does, and scrolls where that does not reach it; all is left as it was. */
export function readLayers(): RawCovered[] {
  const { page } = globalThis.mivketNotebook;
  const scroll = keepScroll();
  // What is free where the page stands needs no scrolling; most is.
  const open = listHitTargets(page).filter(
    (real) => !isPointable(real) || findCover(real) !== null,
  );
  const covered = open.map((real) => ({ real, by: scrollAndFind(real, scroll) }));
  const found = mapPresent(covered, ({ real, by }) => (by ? describeCovered(real, by) : null));
  scroll.restore();
  return found;
}

/**
 * Whether anything is taken out of its place, so that it could lie over something else.
 * @param everywhere code may have put something outside of the slots
 */
export function canCover(page: Document, everywhere: boolean): boolean {
  const roots = everywhere ? [page.documentElement] : [...page.querySelectorAll(SLOT)];
  for (const real of walk(roots)) if (isMoved(real)) return true;
  return false;
}

function isMoved(real: Element): boolean {
  const style = getComputedStyle(real);
  const { position, float, transform, translate, gridRowStart, gridColumnStart, overflowY } = style;
  const margins = [style.marginTop, style.marginBottom, style.marginLeft, style.marginRight];
  return (
    position !== 'static' ||
    float !== 'none' ||
    [transform, translate, style.scale, style.rotate].some((one) => one !== 'none') ||
    gridRowStart !== 'auto' ||
    gridColumnStart !== 'auto' ||
    margins.some((one) => one.startsWith('-')) ||
    // What reaches out of a box that is too low lies over what follows.
    (overflowY === 'visible' && real.scrollHeight > real.clientHeight + 1)
  );
}

/** Those of the document, shadow roots included. */
export function listHitTargets(page: Document): Element[] {
  const found: Element[] = [];
  for (const real of walk([page.documentElement])) {
    if (found.length >= MOST) break;
    if (isTarget(real)) found.push(real);
  }
  return found;
}

function isTarget(real: Element): boolean {
  const node = globalThis.mivketNotebook.own(real);
  if (!node.matches(TARGETS)) return false;
  const { width, height } = node.getBoundingClientRect();
  const seen = node.checkVisibility({ opacityProperty: true, visibilityProperty: true });
  const usable = !node.matches(':disabled') && getComputedStyle(real).pointerEvents !== 'none';
  return seen && usable && width > TINY && height > TINY && !node.closest('[inert]');
}

/** What lies over all points of it that are in view; null where one is free, or none could be tried. */
export function findCover(real: Element): Element | null {
  const covers = new Map<Element, number>();
  for (const [x, y] of listPoints(real)) {
    const hit = pointAt(x, y);
    if (!hit || isSame(real, hit)) return null;
    covers.set(hit, (covers.get(hit) ?? 0) + 1);
  }
  return [...covers].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
}

/** Whether any point of it is in view. */
export function isPointable(real: Element): boolean {
  return listPoints(real).length > 0;
}

/** Its points that are in view, px of the window. */
function listPoints(real: Element): [number, number][] {
  const r = globalThis.mivketNotebook.own(real).getBoundingClientRect();
  const area = getVisibleArea(real);
  return POINTS.map(([right, down]): [number, number] => [
    r.left + r.width * right,
    r.top + r.height * down,
  ]).filter(([x, y]) => x >= area.left && x < area.right && y >= area.top && y < area.bottom);
}

function pointAt(x: number, y: number): Element | null {
  let hit = globalThis.mivketNotebook.page.elementFromPoint(x, y);
  for (;;) {
    const root = hit && (hit.shadowRoot ?? globalThis.mivketNotebook.closedRoots.get(hit));
    const inner = root?.elementFromPoint(x, y);
    if (!inner || inner === hit) return hit;
    hit = inner;
  }
}

/** To point at it, at what is in it, at its label, or at what is around it, is to point at it or at nothing else. */
function isSame(real: Element, hit: Element): boolean {
  const labels: Element[] = Array.from((real as Partial<HTMLInputElement>).labels ?? []);
  const around = [...listParents(hit)];
  if (around.some((node) => node === real || labels.includes(node))) return true;
  return [...listParents(real)].includes(hit);
}

/** Places of the window, from its upper or lower edge, that something is brought to: bars may be at either. */
export const PLACES = [
  ['center', 0],
  ['start', 0],
  ['end', 0],
  ['start', 0.15],
  ['start', 0.3],
  ['end', -0.15],
  ['end', -0.3],
] as const;

/** Brings something to a place of the window, as far as the page can be scrolled. */
export function bringTo(real: Element, [block, down]: (typeof PLACES)[number]): void {
  real.scrollIntoView({ block, inline: 'nearest', behavior: 'instant' });
  if (down !== 0) window.scrollBy({ top: -down * window.innerHeight, behavior: 'instant' });
}

/** What covers it wherever it is scrolled to; null where it gets free, or is nowhere to be seen. */
function scrollAndFind(real: Element, scroll: Scroll): Element | null {
  let cover: Element | null = null;
  scroll.note(real);
  // From the very top as well: what is in the first screen may be free there only.
  for (const place of [...PLACES, null]) {
    if (place === null) window.scrollTo({ top: 0, left: 0, behavior: 'instant' });
    else bringTo(real, place);
    if (!isPointable(real)) continue;
    cover = findCover(real);
    if (!cover) return null;
  }
  return cover;
}

interface Scroll {
  /** Keeps in mind how far all is scrolled that is around an element. */
  note(real: Element): void;
  restore(): void;
}

function keepScroll(): Scroll {
  const { parentOf } = globalThis.mivketNotebook;
  const kept = new Map<Element, [number, number]>();
  const { scrollX: left, scrollY: top } = window;
  return {
    note(real) {
      for (let node = parentOf(real); node; node = parentOf(node))
        if (!kept.has(node)) kept.set(node, [node.scrollLeft, node.scrollTop]);
    },
    restore() {
      for (const [node, [x, y]] of kept) {
        if (node.scrollLeft !== x) node.scrollLeft = x;
        if (node.scrollTop !== y) node.scrollTop = y;
      }
      window.scrollTo({ left, top, behavior: 'instant' });
    },
  };
}

export function describeCovered(real: Element, by: Element): RawCovered {
  const { idOf, own } = globalThis.mivketNotebook;
  const node = own(real);
  return {
    id: idOf(real),
    tag: node.localName,
    what: getWhat(node),
    name: getName(node),
    box: toPageBox(node.getBoundingClientRect()),
    inSlot: node.closest(SLOT) !== null,
    by: { id: idOf(by), tag: own(by).localName, control: isControl(by) },
  };
}

function getWhat({ localName }: Element): RawCovered['what'] {
  if (FRAMES.has(localName)) return 'frame';
  return MEDIA.has(localName) ? 'player' : 'control';
}

function getName(node: Element): string {
  const said = [
    node.getAttribute('aria-label'),
    node.textContent,
    node.getAttribute('title'),
    node.getAttribute('placeholder'),
    node.getAttribute('alt'),
    node.querySelector('[alt]')?.getAttribute('alt'),
  ];
  return said.map((one) => getSample(one ?? '')).find(Boolean) ?? '';
}

/** A visitor can do something with it: it is a control, or in one, or its pointer says so. */
function isControl(hit: Element): boolean {
  const around = hit.closest(`${CONTROLS}, label, [onclick]`);
  return around !== null || getComputedStyle(hit).cursor === 'pointer';
}
