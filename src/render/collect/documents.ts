import { flatMap } from '../../core/lists.js';
import type { RawFrame } from '../../facts/frames/read.js';
import { patiently } from '../bounds/patience.js';
import type { Inner } from '../in-page/inner.js';
import type { BrowserPage } from '../page/browser-page.js';

/** A frame that does not answer by then is not measured, ms. */
const FRAME_LIMIT = 1000;

/** The document of a frame of the page's own. */
export interface FrameDocument {
  /** Names the frame, as long as it stands. */
  frame: string;
  /** The number of the element that it stands in. */
  owner: number;
  inner: Inner;
}

/** A window does not name the frames that stand in its shadow roots: those are looked up, as far as they are so few. */
const MOST_LOOKED_UP = 40;

/** The documents of frames, as far as they answer. */
export async function readDocuments(
  page: BrowserPage,
  frames: readonly RawFrame[],
): Promise<FrameDocument[]> {
  const answers = await page.readFrames('readInner', FRAME_LIMIT);
  const owners = new Map(flatMap(frames, ({ id, index }) => (index === null ? [] : [[index, id]])));
  const hidden = frames.length - owners.size;
  const looksUp = hidden > 0 && hidden <= MOST_LOOKED_UP;
  const known = answers.map(async ({ frame, answer }): Promise<FrameDocument[]> => {
    const { inPage, index } = answer;
    const isHidden = inPage && index === null && looksUp;
    // One that is gone meanwhile costs itself only.
    const asked = isHidden ? patiently(page.findOwner(frame), FRAME_LIMIT).catch(() => null) : null;
    const owner = index === null ? await asked : (owners.get(index) ?? null);
    return owner === null ? [] : [{ frame, owner, inner: answer }];
  });
  return (await Promise.all(known)).flat();
}
