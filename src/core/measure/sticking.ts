import type { Baseline, ElementFact, Facts } from '../evidence.js';
import { findCulprits, TOLERANCE, type Overhanging } from './culprits.js';

/** An element that reaches beyond an edge, with the edge, page px. */
export type Sticking = Overhanging & { side: 'left' | 'right'; edge: number };

/** What of a render tells whether the page is too wide. */
export type PageView = Pick<Facts, 'page' | 'elements'> & {
  baseline: Pick<Baseline, 'scrollWidth'> | null;
};

/** By how much the page is wider than its window and than without the snippet; null where it is not. */
export function getPageOverhang({
  page,
  baseline,
}: Pick<PageView, 'page' | 'baseline'>): { overhang: number; edge: number } | null {
  const width = getWidest(page);
  const edge = Math.max(width.clientWidth, baseline?.scrollWidth ?? 0);
  const over = width.scrollable && width.scrollWidth > edge + TOLERANCE;
  return over ? { overhang: width.scrollWidth - width.clientWidth, edge } : null;
}

/** The width at which the page's elements were read. */
export function getWidest(page: PageView['page']): PageView['page']['atLoad'] {
  return page.readAt === 'after-scroll' && page.afterScroll ? page.afterScroll : page.atLoad;
}

/** Who makes the page too wide. */
export function listPageCulprits(view: PageView): Sticking[] {
  const { direction } = view.page;
  const over = getPageOverhang(view);
  if (!over) return [];
  const wish = { left: 0, right: over.edge, direction, shownOnly: false };
  const side = direction === 'rtl' ? 'left' : 'right';
  const edge = direction === 'rtl' ? 0 : over.edge;
  return findCulprits(view.elements, wish).map((one) => ({ ...one, side, edge }));
}

/** Whether the page is wider than any of the snippet's elements makes it. */
export function isUnexplained({ page, elements, baseline }: PageView): boolean {
  const over = getPageOverhang({ page, baseline });
  const rtl = page.direction === 'rtl';
  const edge = rtl ? 0 : getWidest(page).clientWidth;
  const isAsFar = ({ clipped, box, inkLeft, inkRight }: ElementFact) => {
    const reach = rtl
      ? edge - Math.min(box.x, inkLeft)
      : Math.max(box.x + box.width, inkRight) - edge;
    return !clipped && reach >= over!.overhang - TOLERANCE;
  };
  return over !== null && !elements.some(isAsFar);
}

/** Who reaches beyond either edge of the slot; who reaches beyond both is told of the side where it is farther out. */
export function listSlotCulprits({
  slot,
  elements,
  page,
}: Pick<Facts, 'slot' | 'elements' | 'page'>): Sticking[] {
  const { x, width } = slot.box;
  if (width === 0) return [];
  const wide = elements.filter((element) => !isParked(element.box, page.atLoad.clientWidth));
  const edges = { left: x, right: x + width };
  const found = new Map<number, Sticking>();
  for (const side of ['right', 'left'] as const) {
    const direction = side === 'right' ? 'ltr' : 'rtl';
    for (const culprit of findCulprits(wide, { ...edges, direction, shownOnly: true })) {
      const known = found.get(culprit.element.id);
      if (!known || known.overhang < culprit.overhang)
        found.set(culprit.element.id, { ...culprit, side, edge: edges[side] });
    }
  }
  return [...found.values()];
}

/** Parked where nobody sees it: wholly outside the window. */
function isParked(box: ElementFact['box'], windowWidth: number): boolean {
  return box.x + box.width <= TOLERANCE || box.x >= windowWidth;
}

/** The frames that are wider than the slot. */
export function listWideFrames<F extends Pick<ElementFact, 'shown' | 'box'>>({
  frames,
  slot,
}: {
  frames: readonly F[];
  slot: Pick<Facts['slot'], 'box'>;
}): F[] {
  const { width } = slot.box;
  return frames.filter((frame) => frame.shown && width > 0 && frame.box.width > width + TOLERANCE);
}
