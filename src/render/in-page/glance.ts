import { SLOT_ATTRIBUTE } from '../../core/host/slot-attribute.js';
import { nextFrame, walk } from './shared.js';

/** How a page looks in passing: two looks that say the same need not be read. */
export interface Glance {
  /** By how much it is too wide, px. */
  tooWide: number;
  /** What a visitor could not but notice: how wide it is, what there is, and how much of it is seen. */
  plain: string;
  /** What stands where. */
  fine: string;
}

/** More elements than these are not counted one by one. */
const MOST = 1500;
/** Places of the window, in each direction, at which it is looked what lies on top. */
const [ACROSS, DOWN] = [5, 7];

/** A frame that was shown. */
export interface Shown {
  /** Where animations were, ms. */
  at: number;
  /** Whether there are any, as far as one knows. */
  animated: boolean;
}

/** Waits for the next frame. */
export async function showFrame(): Promise<Shown> {
  keepDrawing();
  await nextFrame();
  return tellFrame();
}

/** Tells of the last frame. */
export function tellFrame(): Shown {
  const { page } = globalThis.mivketNotebook;
  const animated = page.getAnimations().length > 0 || page.querySelector('iframe') !== null;
  return { at: Number(page.timeline.currentTime), animated };
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
  const topmost = listTopmost(page);
  const plain = [
    [tooWide, page.getElementsByTagName('*').length, page.querySelectorAll('dialog[open]').length],
    [countSeen(root), listPinned(topmost)],
    slots.map((slot) => [countSeen(slot), slot.textContent.trim() !== '']),
    [root, ...(body ? [body] : [])].map(getManner),
    Array.from(page.querySelectorAll('video, audio'), isPlaying),
    [...book.posts.values()].map((heights) => heights.length),
    book.prints,
  ];
  const fine = [
    slots.map((slot) => [Math.round(slot.getBoundingClientRect().height), slot.scrollWidth]),
    slots.map(sumUpColours),
    [root.scrollHeight, Math.round(scrollX), Math.round(scrollY)],
    topmost.map(numberOf),
    book.changes,
  ];
  return { tooWide, plain: JSON.stringify(plain), fine: JSON.stringify(fine) };
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

/** More elements than these are not asked for their colours. */
const MOST_COLOURED = 400;

/** A number that is another where one of the colours in an element is: time may fade what nobody changes. */
function sumUpColours(root: Element): number {
  let [sum, all] = [0, 0];
  for (const real of walk([root])) {
    if (++all > MOST_COLOURED) break;
    const { color, backgroundColor, opacity, fill, filter } = getComputedStyle(real);
    for (const letter of [color, backgroundColor, opacity, fill, filter].join())
      sum = (Math.imul(sum, 31) + letter.charCodeAt(0)) | 0;
  }
  return sum;
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

function listTopmost(page: Document): (Element | null)[] {
  const found: (Element | null)[] = [];
  for (let i = 0; i < ACROSS * DOWN; i++) {
    const x = (((i % ACROSS) + 0.5) / ACROSS) * innerWidth;
    const y = ((Math.floor(i / ACROSS) + 0.5) / DOWN) * innerHeight;
    found.push(page.elementFromPoint(x, y));
  }
  return found;
}

function numberOf(real: Element | null): number {
  return real ? globalThis.mivketNotebook.idOf(real) : 0;
}

/** What stays where it is in the window, and at how many places it lies on top. */
function listPinned(topmost: readonly (Element | null)[]): [number, number][] {
  const counts = new Map<number, number>();
  for (const one of topmost) {
    const pinned = numberOf(findPinned(one));
    if (pinned > 0) counts.set(pinned, (counts.get(pinned) ?? 0) + 1);
  }
  return [...counts];
}

function findPinned(real: Element | null): Element | null {
  const { parentOf } = globalThis.mivketNotebook;
  let node = real;
  while (node && getComputedStyle(node).position !== 'fixed') node = parentOf(node);
  return node;
}
