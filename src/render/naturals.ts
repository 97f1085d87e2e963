import type { FrameFact } from '../core/evidence.js';
import { LEAST_FILLED, listFramed } from '../core/measure/framed.js';
import type { RawFrame } from '../facts/frames/read.js';
import { within } from './limit.js';
import type { BrowserPage } from './page/browser-page.js';

type Inner = NonNullable<FrameFact['inner']>;

/** Of more frames than this the heights are not looked for. */
const MOST = 40;
/** A frame that does not answer by then has no height that is known, ms. */
const LIMIT = 3000;

/**
 * Tells for each frame that is too low or too high for its document how high that is by itself: it is made low for a moment.
 * Changes the page meanwhile, so that all else has to be read before.
 */
export async function readNaturals(
  page: BrowserPage,
  frames: readonly FrameFact[],
  raw: readonly RawFrame[],
): Promise<FrameFact[]> {
  const places = listPlaces(raw);
  const wanted = listFramed({ frames: [...frames] })
    .filter(({ inner }) => isUnfit(inner))
    .flatMap(({ id }) => places.get(id) ?? []);
  if (wanted.length === 0 || wanted.length > MOST) return [...frames];
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

/** Of what fits as it is nobody has to know how high it would be by itself. */
function isUnfit({ height, scrollHeight, contentHeight = 0 }: Inner): boolean {
  return scrollHeight > height + 1 || contentHeight < height * LEAST_FILLED;
}

/** With more room it reaches farther down: it goes by its room. @param low how high it is in a low frame, px */
function fills({ height, contentHeight = 0 }: Inner, low: number | null): boolean {
  return low === null || (height >= low && contentHeight > low + TOLERANCE);
}

/** The places of frames among the page's, by their numbers. */
function listPlaces(raw: readonly RawFrame[]): Map<number, number> {
  const known = raw.map(({ id, index }): [number, number | null] => [id, index]);
  return new Map(known.filter((one): one is [number, number] => one[1] !== null));
}
