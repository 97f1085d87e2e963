import type { Baseline, Facts } from '../core/evidence.js';
import { getHarmedRegion, listHarmed } from '../core/measure/host-damage.js';
import type { Viewport } from '../core/render.js';
import type { BrowserPage } from './page/browser-page.js';
import { shootRegion, type TakenShot } from './shot.js';

/** What of the page around is harmed by a snippet, as it looks with it; null where nothing is. */
export async function shootHarmed(
  page: BrowserPage,
  facts: Pick<Facts, 'host' | 'page'>,
  { baseline, window: viewport }: { baseline: Baseline | null; window: Viewport },
): Promise<TakenShot | null> {
  const harmed = listHarmed({ ...facts, viewport, baseline });
  if (harmed.length === 0) return null;
  const region = getHarmedRegion(harmed, viewport);
  return shootRegion(page, viewport, facts.page.atLoad.clientWidth, region);
}
