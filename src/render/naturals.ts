import type { FrameFact } from '../core/evidence.js';
import { listFramed } from '../core/measure/framed.js';
import { within } from './limit.js';
import type { BrowserPage } from './page/browser-page.js';

type Inner = NonNullable<FrameFact['inner']>;

/** A frame that does not answer by then has no height that is known, ms. */
const LIMIT = 1500;

/**
 * Tells for each frame with a document to be read how high that is by itself: it is made low for a moment.
 * Changes the page meanwhile, so that all else has to be read before.
 */
export async function readNaturals(
  page: BrowserPage,
  frames: readonly FrameFact[],
  places: ReadonlyMap<number, number>,
): Promise<FrameFact[]> {
  const wanted = listFramed({ frames: [...frames] }).flatMap(({ id }) => places.get(id) ?? []);
  if (wanted.length === 0) return [...frames];
  await within(page.read('squeezeFrames', wanted), LIMIT).catch(() => null);
  const answers = await page.readFrames('readNatural', LIMIT).catch(() => []);
  await within(page.read('releaseFrames'), LIMIT).catch(() => null);
  const heights = new Map(answers.map((one) => [one?.index ?? -1, one?.height]));
  return frames.map((frame) => {
    const low = heights.get(places.get(frame.id) ?? -2);
    if (low === undefined || !frame.inner) return frame;
    return { ...frame, inner: { ...frame.inner, natural: fills(frame.inner, low) ? null : low } };
  });
}

const TOLERANCE = 2;

/** With more room it reaches farther down: it goes by its room. @param low how high it is in a low frame, px */
function fills({ height, contentHeight = 0 }: Inner, low: number | null): boolean {
  return low === null || (height >= low && contentHeight > low + TOLERANCE);
}
