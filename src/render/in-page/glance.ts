import { SLOT_ATTRIBUTE } from '../../core/host/slot-attribute.js';
import { nextFrame, walk } from './shared.js';

/** How a page looks in passing: two looks that say the same need not be read. */
export interface Glance {
  /** What a visitor could not but notice: how wide it is, what there is, and how much of it is seen. */
  plain: string;
  /** What stands where. */
  fine: string;
}

/** More elements than these are not counted one by one. */
const MOST = 1500;
/** Places of the window, in each direction, at which it is looked what lies on top. */
const [ACROSS, DOWN] = [5, 7];

/** Waits for the next frame, and tells where animations are by then, ms. */
export async function showFrame(): Promise<number> {
  keepDrawing();
  await nextFrame();
  return Number(globalThis.mivketNotebook.page.timeline.currentTime);
}

/** Looks at the document of a frame: how large it is, how much stands in it, and what plays. */
export function glanceInside(): string {
  const { page } = globalThis.mivketNotebook;
  const { scrollWidth, scrollHeight } = page.documentElement;
  const playing = Array.from(page.querySelectorAll('video, audio'), isPlaying);
  const sizes = [scrollWidth, scrollHeight, page.getElementsByTagName('*').length];
  return JSON.stringify([sizes, playing]);
}

/** Where nothing is drawn the clock of animations is another one than that of frames: so there is always a next frame. */
function keepDrawing(): void {
  const book = globalThis.mivketNotebook;
  if (book.aged) return;
  book.aged = true;
  const draw = () => requestAnimationFrame(draw);
  draw();
}

/** Looks at the page as it stands. */
export function glance(): Glance {
  const book = globalThis.mivketNotebook;
  book.takeRecords();
  const { page } = book;
  const slots = Array.from(page.querySelectorAll(`[${SLOT_ATTRIBUTE}]`));
  const { documentElement: root, body } = page;
  const tooWide = Math.max(root.scrollWidth - root.clientWidth, 0);
  const plain = [
    [tooWide, page.getElementsByTagName('*').length, page.querySelectorAll('dialog[open]').length],
    countSeen(root),
    slots.map((slot) => [countSeen(slot), slot.textContent.trim() !== '']),
    [root, ...(body ? [body] : [])].map(getManner),
    Array.from(page.querySelectorAll('video, audio'), isPlaying),
    [...book.posts.values()].map((heights) => heights.length),
  ];
  const fine = [
    slots.map((slot) => [Math.round(slot.getBoundingClientRect().height), slot.scrollWidth]),
    [root.scrollHeight, Math.round(scrollX), Math.round(scrollY)],
    listTopmost(page),
    book.changes,
  ];
  return { plain: JSON.stringify(plain), fine: JSON.stringify(fine) };
}

/** How much of an element with all that is in it a visitor could see. */
function countSeen(root: Element): number {
  let [seen, all] = [0, 0];
  for (const real of walk([root])) {
    if (++all > MOST) break;
    if (real.checkVisibility({ opacityProperty: true, visibilityProperty: true })) seen++;
  }
  return seen;
}

/** What of the page as a whole code may take away. */
function getManner(real: Element): string[] {
  const { overflowX, overflowY, opacity, filter, transform, zoom, pointerEvents, paddingTop } =
    getComputedStyle(real);
  return [overflowX, overflowY, opacity, filter, transform, zoom, pointerEvents, paddingTop];
}

function isPlaying(media: Element): boolean {
  return media instanceof HTMLMediaElement && !media.paused && !media.muted;
}

function listTopmost(page: Document): number[] {
  const found: number[] = [];
  for (let i = 0; i < ACROSS * DOWN; i++) {
    const x = (((i % ACROSS) + 0.5) / ACROSS) * innerWidth;
    const y = ((Math.floor(i / ACROSS) + 0.5) / DOWN) * innerHeight;
    const top = page.elementFromPoint(x, y);
    found.push(top ? globalThis.mivketNotebook.idOf(top) : 0);
  }
  return found;
}
