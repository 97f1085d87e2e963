import type { Box, Shot } from '../core/evidence.js';
import type { StoodText, WantedPiece } from '../core/live/pieces.js';
import { flatMap } from '../core/lists.js';
import type { Render } from '../core/render.js';
import { patiently } from './bounds/patience.js';
import type { BrowserPage } from './page/browser-page.js';
import type { TakenShot } from './steps/shot.js';

/** Who wants to know what stands in pages, of each load that is as it is. */
export interface Onlooker {
  tell(render: Render, texts: readonly StoodText[]): void;
  /** Of which pieces there is to be a picture. */
  choose(texts: readonly StoodText[]): readonly WantedPiece[];
  show(render: Render, pieces: readonly TakenPiece[]): Promise<void>;
}

/** A piece of a page, and its picture. */
export interface TakenPiece {
  of: string;
  taken: TakenShot;
}

/** The same, without the bytes. */
export interface ShownPiece {
  of: string;
  shot: Shot;
}

/** How long a page and its frames may take to tell, ms. */
const LIMIT = 4000;

/** What stands in a page now, in whatever frame and shadow root; what does not answer is left out. */
export async function readStood(
  page: Pick<BrowserPage, 'read' | 'readFrames'>,
): Promise<StoodText[]> {
  const own =
    (await patiently(
      page.read('readStanding').catch(() => null),
      LIMIT,
    )) ?? [];
  const framed = await page.readFrames('readStanding', LIMIT).catch(() => []);
  return [
    ...own.map((one) => ({ ...one, inFrame: false })),
    ...flatMap(framed, ({ answer }) =>
      answer.map(({ text, elements }) => ({ text, inFrame: true, elements: elements.map(hide) })),
    ),
  ];
}

/** Where something is in a frame says nothing of where it is on the page. */
function hide([name]: [string, Box | null]): [string, null] {
  return [name, null];
}
