import type { Fact } from '../check.js';
import type { Baseline, Box, Facts, HostPart, HostPartFact } from '../evidence.js';
import { flatMap } from '../lists.js';
import type { Viewport } from '../render.js';

/** What can happen to a part of the page around a snippet. */
export const HARMS = [
  'gone',
  'hidden',
  'unclickable',
  'displaced',
  'reworded',
  'redirected',
  'moved',
  'resized',
  'restyled',
  'repainted',
] as const;
export type Harm = (typeof HARMS)[number];

/** A part of the page that is not as it is without the snippet. */
export interface Harmed {
  part: HostPartFact;
  harm: Harm;
}

/** A page with the snippet, and without. */
export interface Compared extends Pick<Facts, 'host' | 'page'> {
  viewport: Viewport;
  baseline: Baseline | null;
}

/** The parts that are harmed: not what is only shifted down, or by a new scroll bar; nor what is harmed with the part around. */
export function listHarmed(compared: Compared): Harmed[] {
  const all = listAll(compared);
  return all.filter((one) => !all.some((other) => other !== one && holds(other, one)));
}

function holds(outer: Harmed, inner: Harmed): boolean {
  const [a, b] = [outer.part.without!.box, inner.part.without!.box];
  const around =
    a.x <= b.x && a.y <= b.y && a.x + a.width >= b.x + b.width && a.y + a.height >= b.y + b.height;
  const larger = a.width * a.height > b.width * b.height;
  return outer.harm === inner.harm && around && (larger || outer.part.offset < inner.part.offset);
}

function listAll({ host, page, viewport, baseline }: Compared): Harmed[] {
  const bar = getBar({ page, viewport, baseline });
  return flatMap(host, (part): Harmed[] => {
    const { without, tag } = part;
    if (!without?.shown || tag === 'head') return [];
    const harm = getHarm(without, part, bar);
    // What stands loose in the page, and how wide it is, is not the page's own.
    const isWhole = /^(html|body)$/.test(tag) && harm !== 'restyled' && harm !== 'hidden';
    return harm && !isWhole ? [{ part, harm }] : [];
  });
}

function getHarm(
  without: HostPart,
  { with: now, displaced }: HostPartFact,
  bar: number,
): Harm | null {
  if (now === null) return 'gone';
  if (!now.shown) return 'hidden';
  if (without.clickable && !now.clickable) return 'unclickable';
  if (displaced) return 'displaced';
  // What is put into something that said nothing is told by what it does.
  if (without.says !== '' && without.says !== now.says) return 'reworded';
  if (without.leads !== now.leads) return 'redirected';
  if (without.style !== now.style) return 'restyled';
  if (Math.abs(now.box.width - without.box.width) > bar + 1) return 'resized';
  return Math.abs(now.box.x - without.box.x) > bar + 1 ? 'moved' : null;
}

/** What is less nobody minds, px. */
const FAR = 24;

/** Whether a part stands further down than a slot's room explains: it is over it. What is centred moves up as the slot grows. */
export function isDisplaced(without: Box, now: Box, slot: Box): boolean {
  const [left, right] = [Math.max(now.x, slot.x), Math.min(now.x + now.width, slot.x + slot.width)];
  const isOver = right > left && now.y + now.height <= slot.y + 1;
  return isOver && now.y - without.y > FAR;
}

/** How wide a scroll bar is that the page has only with the snippet, or only without, px. */
function getBar({ page, viewport, baseline }: Omit<Compared, 'host'>): number {
  if (baseline === null) return 0;
  const { clientWidth } = page.atLoad;
  if (baseline.scrollWidth > clientWidth) return viewport.width - clientWidth;
  return baseline.scrollWidth < clientWidth ? viewport.width - baseline.scrollWidth : 0;
}

/** What is shown around harmed parts, px; and how high a picture is at most. */
const MARGIN = 16;
const MOST_HEIGHT = 1200;

/** The piece of the page that harmed parts are in, with and without the snippet; as wide as the window. */
export function getHarmedRegion(harmed: readonly Harmed[], viewport: Viewport): Box {
  const boxes = flatMap(harmed, ({ part }) => [
    part.without!.box,
    ...(part.with?.shown ? [part.with.box] : []),
  ]);
  const top = Math.max(0, Math.floor(Math.min(...boxes.map(({ y }) => y)) - MARGIN));
  const bottom = Math.ceil(Math.max(...boxes.map(({ y, height }) => y + height)) + MARGIN);
  const height = Math.min(Math.max(bottom - top, viewport.height / 4), MOST_HEIGHT);
  return { x: 0, y: top, width: viewport.width, height: Math.round(height) };
}

/** Whether a finding says no more than that parts of the page stand elsewhere, or have another size. */
export function isShifted({ data }: Fact<unknown>): boolean {
  const { harms } = data as { harms: { harm: Harm }[] };
  return harms.every(({ harm }) => harm === 'moved' || harm === 'resized');
}
