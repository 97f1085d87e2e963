import { nextFrame } from '../../render/in-page/shared.js';
import {
  bringTo,
  describeCovered,
  findCover,
  isPointable,
  listHitTargets,
  PLACES,
  type RawCovered,
} from './read.js';

/** What was free to be pointed at, at one place on the way down, and what lay over the rest there. */
const met = { free: new Set<Element>(), covered: new Map<Element, Element>() };

/** Points at all that is in view. Resolves to how far down that is, px. */
export function noteStop(): number {
  const { free, covered } = met;
  for (const real of listHitTargets(globalThis.mivketNotebook.page)) {
    if (free.has(real) || !isPointable(real)) continue;
    const cover = findCover(real);
    if (cover) covered.set(real, cover);
    else free.add(real);
  }
  return Math.round(window.scrollY);
}

/** So many that were nowhere free are brought to other places of the window too. */
const MOST_BROUGHT = 20;

/** What was nowhere free on the way down, nor is where it is brought to, with the page at work. */
export async function listCoveredOnTheWay(): Promise<RawCovered[]> {
  const found: RawCovered[] = [];
  const { scrollX: left, scrollY: top } = window;
  for (const [real, by] of met.covered) {
    if (met.free.has(real) || found.length >= MOST_BROUGHT) continue;
    if (!(await getsFree(real))) found.push(describeCovered(real, by));
  }
  window.scrollTo({ left, top, behavior: 'instant' });
  await nextFrame();
  return found;
}

async function getsFree(real: Element): Promise<boolean> {
  for (const place of PLACES) {
    bringTo(real, place);
    await nextFrame();
    if (isPointable(real) && !findCover(real)) return true;
  }
  return false;
}
