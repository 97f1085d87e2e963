import { couldFlash, findFlash, type Flash, type Grid } from '../core/measure/flashing.js';
import { patiently } from './bounds/patience.js';
import { readLights } from './lights.js';
import type { BrowserPage } from './page/browser-page.js';
import type { ShownFrame } from './page/page-screen.js';

/** What was looked at, and whether it flashes; its box in px of the page. */
export interface Watched {
  flash: Flash | null;
  /** Something was painted all the time. */
  moved: boolean;
  /** Why that is not known; null where it is. */
  unseen: string | null;
}

/** In so many frames of the browser's what flashes so often that it matters is painted at least once. */
const QUIET = 12;
/** How long these may take, where nothing keeps the browser from making them, ms. */
const QUIET_LIMIT = 4000;
/** A frame is told of a little later than it is painted, on a busy machine more so, ms. */
const TOLD = 100;
/** So many times as many are looked at of what does not come to rest: a second, and what it takes to find where one begins. */
const LONG = 7;
/** After so many times as many what flashes has changed so often. */
const SOON = 3;
const SOON_CHANGES = 4;
/** Where frames come further apart flashes may be between them, ms: the slowest that matter change every 125. */
const FAR = 60;
/** The browser waits for the one before last to be taken, ms. */
const LATE = 120;
/** What has changed so often meanwhile may have done so more often: what loads comes in two or three pieces, one over the other. */
const DOUBTED = 4;
const MOST_TRIES = 3;
const UNSEEN = 'what it paints was not shown often enough to tell whether it flashes';
/** It could not be. */
export const UNWATCHED: Watched = { flash: null, moved: false, unseen: UNSEEN };

/** Looks at what a page shows while its time goes on as usual, until nothing is painted any more, or for long enough. */
export async function watchFlashes(page: BrowserPage): Promise<Watched> {
  for (let tries = 1; ; tries++) {
    const { watched, even } = await watchOnce(page);
    if (watched.flash || watched.unseen !== null || (even && (watched.moved || tries === 1)))
      return watched;
    // What has ended meanwhile cannot be seen again.
    if (even || tries === MOST_TRIES) return { ...watched, unseen: UNSEEN };
  }
}

async function watchOnce(page: BrowserPage): Promise<{ watched: Watched; even: boolean }> {
  const frames = page.screen.take().map(readFrame);
  const sumUp = (moved: boolean, isEven: boolean) => ({
    watched: { flash: findIn(frames), moved, unseen: null },
    even: isEven || !goesBack(frames, DOUBTED),
  });
  let even = true;
  for (let stretch = 1; stretch <= LONG; stretch++) {
    const { shown, waited } = await waitOn(page);
    if (waited === null) return { watched: UNWATCHED, even };
    const taken = page.screen.take();
    frames.push(...taken.map(readFrame));
    even &&= waited <= FAR && taken.every(({ late }) => late <= LATE);
    if (!shown) return sumUp(false, even);
    if (stretch === SOON && even && !goesBack(frames, SOON_CHANGES)) return sumUp(true, even);
  }
  return sumUp(true, even);
}

/** Whether anything is painted in some frames, and how far these were apart, ms; null where they do not come. */
async function waitOn(page: BrowserPage) {
  const { screen } = page;
  const before = screen.count;
  const asked = page.read('awaitFrames', QUIET).catch(() => null);
  const waited = await patiently(asked, QUIET_LIMIT);
  return { shown: await isShown(page, before), waited };
}

/** Whether any frame was shown since there were so many. */
export async function isShown(
  { screen }: Pick<BrowserPage, 'screen'>,
  before: number,
): Promise<boolean> {
  return screen.count > before || (await patiently(screen.whenShown(), TOLD)) !== null;
}

/** A frame with how light its pixels are. */
type ReadFrame = ShownFrame & { cells: ReturnType<typeof readLights> };

function readFrame(frame: ShownFrame): ReadFrame {
  return { ...frame, cells: readLights(frame.png) };
}

/** What flashes while the page stands at one place. */
function findIn(frames: readonly ReadFrame[]): Flash | null {
  for (const series of split(frames)) {
    const flash = findInSeries(series);
    if (flash) return flash;
  }
  return null;
}

/** Whether anything large becomes lighter and darker so often. */
function goesBack(frames: readonly ReadFrame[], often: number): boolean {
  return split(frames).some((series) => couldFlash(series, getGrid(series), often));
}

/** Those that follow each other and have the same place. */
function split(frames: readonly ReadFrame[]): ReadFrame[][] {
  const all: ReadFrame[][] = [];
  let before = '';
  for (const frame of frames) {
    const { width, zoom, left, top, cells } = frame;
    const place = [width, zoom, left, top, cells.width, cells.height].join();
    if (place !== before) all.push([]);
    all.at(-1)!.push(frame);
    before = place;
  }
  return all;
}

/** Fewer frames show no flashes. */
const LEAST = 8;

function findInSeries(series: readonly ReadFrame[]): Flash | null {
  const flash = series.length < LEAST ? null : findFlash(series, getGrid(series));
  return flash && { ...flash, box: toPage(flash.box, series[0]!) };
}

function getGrid([first]: readonly ReadFrame[]): Grid {
  const { width: across, height: down } = first!.cells;
  return { across, down, size: first!.width / across };
}

function toPage({ x, y, width, height }: Flash['box'], { zoom, left, top }: ShownFrame) {
  return { x: x / zoom + left, y: y / zoom + top, width: width / zoom, height: height / zoom };
}
