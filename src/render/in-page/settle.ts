import { LONGEST_ANIMATION } from './endless.js';
import { forgetEarly, noteEarly } from './early.js';
import { listFilms, listUnsized, whenShown, whenSized } from './films.js';
import { countPixels } from './pixels.js';
import { nextFrame } from './shared.js';

/** What is waited for in the page: fonts, pictures, media, and a still page. */
export interface SettleWish {
  /** For how long, at most, ms. */
  limit: number;
  /** How long the document must have been unchanged, ms; 0 where nothing can change it by itself. */
  quiet: number;
  /** Whether video and audio are to be waited for. */
  media: boolean;
  /** It has only just loaded; `asking`: it asked for something that may have come since. */
  first: false | 'asking' | 'loaded';
}

/** How it is told that timers are about to go off, or animations to end: time can be moved on to where they do. */
export const DUE = 'what is due';
/** A clock on the page never is at rest: what it does shows within a second or so, ms. */
const CLOCK = 1500;

/** Waits inside the page until it has come to rest. Resolves to what had not when time was over. */
export async function settle(wish: SettleWish): Promise<string[]> {
  const book = globalThis.mivketNotebook;
  const { page } = book;
  const waiting = new Waiting(wish.limit);
  const noting = wish.first === 'asking' ? forgetEarly() : Promise.resolve();
  const noted = noting.then(() => void (wish.first && noteEarly(wish.quiet > 0)));
  await Promise.all([
    noted,
    waiting.add('fonts', page.fonts.ready),
    ...listPictures(page).map((image) => waiting.add('pictures', once(image, 'load', 'error'))),
    ...(wish.quiet > 0 ? [waiting.add('the document', whenStill(wish.quiet))] : []),
    ...(wish.media
      ? listMedia(page).map((one) =>
          waiting.add('media', once(one, 'canplaythrough', 'error', 'playing')),
        )
      : []),
    // Where its server takes its time a page counts as loaded before a film in it has its size.
    ...(wish.media
      ? listUnsized(page).map((film) => waiting.add('films', whenSized(film, waiting.end)))
      : []),
  ]);
  await waiting.add('pictures', countPixels(page));
  await nextFrame();
  // A film that has begun has shown something only when a frame was presented.
  if (wish.media)
    await Promise.all(
      listFilms(page).map((film) => waiting.add('media', whenShown(film, waiting.end))),
    );
  // Of timers only where code of its own is waited for.
  const isDue = (wish.quiet > 0 && book.timers > 0) || listAnimations(page).length > 0;
  return isDue ? [...waiting.open, DUE] : [...waiting.open];
}

/** Several things that are waited for, each until the time is over. */
class Waiting {
  /** What had not come when the time was over. */
  readonly open = new Set<string>();
  /** When the time is over, by `performance.now()`. */
  readonly end: number;

  constructor(limit: number) {
    this.end = performance.now() + limit;
  }

  async add(name: string, promise: Promise<unknown>): Promise<void> {
    let timer = 0;
    const left = Math.max(this.end - performance.now(), 0);
    const over = new Promise<boolean>((resolve) => {
      timer = setTimeout(resolve, left, true) as unknown as number;
    });
    const done = promise.then(
      () => false,
      () => false,
    );
    const late = await Promise.race([done, over]);
    clearTimeout(timer);
    if (late) this.open.add(name);
  }
}

function once(target: EventTarget, ...names: string[]): Promise<void> {
  return new Promise((resolve) => {
    for (const name of names) target.addEventListener(name, () => resolve(), { once: true });
  });
}

function listPictures(page: Document): HTMLImageElement[] {
  return Array.from(page.images).filter((image) => !image.complete && image.loading !== 'lazy');
}

/** Those that run and come to an end. */
function listAnimations(page: Document): Animation[] {
  return page.getAnimations().filter((animation) => {
    const end = animation.effect?.getComputedTiming().endTime;
    const ends = typeof end === 'number' && Number.isFinite(end) && end < LONGEST_ANIMATION;
    return animation.playState === 'running' && ends;
  });
}

/** Those that are to start by themselves, and may still do. */
function listMedia(page: Document): HTMLMediaElement[] {
  const hasSource = (one: HTMLMediaElement) =>
    Boolean(one.getAttribute('src') || one.srcObject || one.querySelector('source'));
  return Array.from(page.querySelectorAll<HTMLMediaElement>('video, audio')).filter(
    (one) =>
      one.autoplay &&
      one.networkState !== HTMLMediaElement.NETWORK_NO_SOURCE &&
      // Without a source nothing can come.
      (one.networkState !== HTMLMediaElement.NETWORK_EMPTY || hasSource(one)) &&
      !one.error &&
      one.readyState < HTMLMediaElement.HAVE_ENOUGH_DATA,
  );
}

/** Until the document has not been changed for so long, or a timer is about to go off. */
async function whenStill(quiet: number): Promise<void> {
  const book = globalThis.mivketNotebook;
  const start = performance.now();
  for (;;) {
    book.takeRecords();
    const rest = quiet - (performance.now() - Math.max(book.lastChange, start));
    // Timers are not waited for here: time is moved on to where they go off.
    if (rest <= 0 || book.timers > 0 || performance.now() - start > CLOCK) return;
    await new Promise((resolve) => setTimeout(resolve, rest));
  }
}

/**
 * Scrolls to the end of the page and back, a screen at a time, as a reader does. Resolves to whether
 * the page, or an animation in it, stirred.
 */
export async function scrollThrough(): Promise<boolean> {
  const book = globalThis.mivketNotebook;
  book.takeRecords();
  const before = book.changes;
  const step = Math.max(window.innerHeight, 200);
  const behavior = 'instant';
  for (let top = step, steps = 0; steps < 30; top += step, steps++) {
    window.scrollTo({ top, left: 0, behavior });
    await nextFrame();
    if (window.scrollY + window.innerHeight >= book.page.documentElement.scrollHeight - 1) break;
  }
  window.scrollTo({ top: 0, left: 0, behavior });
  await nextFrame();
  await nextFrame();
  book.takeRecords();
  const moving = book.page.getAnimations().some((animation) => animation.playState === 'running');
  return book.changes > before || moving;
}
