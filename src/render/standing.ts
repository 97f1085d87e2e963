import { flatMap } from '../core/lists.js';
import type { Render } from '../core/render.js';
import { patiently } from './bounds/patience.js';
import type { BrowserPage } from './page/browser-page.js';
import type { Terms } from './setting.js';

/** A piece of a page as it stood, as HTML. */
export interface StandingText {
  text: string;
  /** It stood in the document of a frame. */
  inFrame: boolean;
}

/** How long a page and its frames may take to tell, ms. */
const LIMIT = 4000;

/** Tells what stands in a page now, in whatever frame and shadow root, where that is asked for; what does not answer is left out. */
export async function tellStanding(
  page: Pick<BrowserPage, 'read' | 'readFrames'>,
  { onStanding }: Terms,
  { variant }: Render,
): Promise<void> {
  if (!onStanding || variant !== 'as-is') return;
  const own =
    (await patiently(
      page.read('readStanding').catch(() => null),
      LIMIT,
    )) ?? [];
  const framed = await page.readFrames('readStanding', LIMIT).catch(() => []);
  onStanding([
    ...own.map((text) => ({ text, inFrame: false })),
    ...flatMap(framed, ({ answer }) => answer.map((text) => ({ text, inFrame: true }))),
  ]);
}
