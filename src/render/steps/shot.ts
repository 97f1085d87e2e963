import { createHash } from 'node:crypto';
import { MOST_SHOWN, type Box, type ElementFact, type Shot } from '../../core/evidence.js';
import type { Viewport } from '../../core/render.js';
import type { RawPage } from '../in-page/page.js';
import { patiently } from '../bounds/patience.js';
import type { BrowserPage } from '../page/browser-page.js';
import { defineStep, type Scene } from './step.js';

/** A shot of a render with its bytes: PNG, one pixel for each CSS px. */
export interface TakenShot {
  shot: Shot;
  bytes: Buffer;
}

/** What is shown around the slot, px; and how much at least. */
const MARGIN = 24;
const LEAST_HEIGHT = 160;
const LIMIT = 8000;

/** A piece of the page, or else the slot with what stands in it, and all that sticks out of the window. */
export const shotStep = defineStep({
  name: 'shot',
  phase: 'posed',
  kind: null,
  alsoHung: true,
  isDue: isShot,
  take: ({ page, job, setting, of, raw, facts }) => {
    const viewport = setting.around.window;
    const region = job.region ?? getRegion(viewport, of, raw, facts.elements);
    return shootRegion(page, viewport, raw?.width.clientWidth ?? null, region);
  },
  shows: (shot) => ({ shot }),
});

/**
 * Whether a picture is taken of it. `last`: only where nothing else was done with it, since it was stopped; others
 * are loaded once more for theirs.
 */
export function isShot({ job, hung, setting }: Scene): boolean {
  return !setting.budget.isOver && (job.shots === 'taken' || (job.shots === 'last' && hung));
}

/** @see shootSteadily; null where the page does not let itself be taken. */
export async function shootRegion(
  page: BrowserPage,
  viewport: Viewport,
  clientWidth: number | null,
  region: Box,
): Promise<TakenShot | null> {
  const bytes = await shootSteadily(page, viewport, clientWidth, region);
  if (!bytes) return null;
  const hash = createHash('sha256').update(bytes).digest('hex');
  return { shot: { hash, region }, bytes };
}

/**
 * A piece of the page. To show more than the window takes its scroll bar away: its room must stay, or all moves.
 * @param clientWidth the window's width without the bar, px; null where it is not known
 * @param scale its pixels for each CSS px
 */
export async function shootSteadily(
  page: BrowserPage,
  viewport: Viewport,
  clientWidth: number | null,
  region: Box,
  scale = 1,
): Promise<Buffer | null> {
  const classic = viewport.scrollBars === 'classic';
  const bar = classic && clientWidth !== null && clientWidth < viewport.width;
  if (bar) await patiently(page.read('setGutter', true), LIMIT).catch(() => null);
  const bytes = await page.shoot(region, viewport.density / scale, LIMIT);
  if (bar) await patiently(page.read('setGutter', false), LIMIT).catch(() => null);
  return bytes;
}

function getRegion(
  viewport: Viewport,
  of: number,
  raw: RawPage | null,
  own: readonly ElementFact[],
): Box {
  const slot = raw?.slots[of]?.box;
  if (!raw || !slot) return { x: 0, y: 0, width: viewport.width, height: viewport.height };
  const boxes = own.filter(({ shown, clipped }) => shown && !clipped).map(({ box }) => box);
  const bottom = Math.max(...[slot, ...boxes].map(({ y, height }) => y + height));
  const top = Math.max(0, Math.floor(Math.min(...[slot, ...boxes].map(({ y }) => y)) - MARGIN));
  return {
    x: 0,
    y: top,
    width: Math.min(Math.max(viewport.width, raw.width.scrollWidth), MOST_SHOWN.width),
    height: Math.min(Math.max(Math.ceil(bottom + MARGIN) - top, LEAST_HEIGHT), MOST_SHOWN.height),
  };
}
