import { isInView, nextFrame } from './shared.js';

/** So many frames of the page, and so long, ms: a film that can begin does so within them on a busy machine too. */
const PATIENCE = { frames: 120, time: 2500 };

/** Those that run, or are let start by themselves where they are seen. */
export function listFilms(page: Document): HTMLVideoElement[] {
  return Array.from(page.querySelectorAll('video')).filter((film) => {
    if (film.error || film.readyState < HTMLMediaElement.HAVE_CURRENT_DATA) return false;
    const silent = film.muted || film.volume === 0;
    return !film.paused || (film.autoplay && silent && isInView(film) && !hasStarted(film));
  });
}

/** Those that are loading, and whose size nobody knows yet. */
export function listUnsized(page: Document): HTMLVideoElement[] {
  return Array.from(page.querySelectorAll('video')).filter(isUnsized);
}

function isUnsized({ error, networkState, readyState }: HTMLVideoElement): boolean {
  const loads = networkState === HTMLMediaElement.NETWORK_LOADING;
  return !error && loads && readyState === HTMLMediaElement.HAVE_NOTHING;
}

/**
 * Until a film has its size, or nothing is asked for any more from which it could come. Where the last of its
 * sources fails no event tells of that.
 * @param end when there is no more time, by `performance.now()`
 */
export async function whenSized(film: HTMLVideoElement, end: number): Promise<void> {
  while (isUnsized(film) && performance.now() < end) await nextFrame();
  // Late: who waits hears of it by its own clock.
  if (isUnsized(film)) await new Promise(() => undefined);
}

/**
 * Until a film has shown a picture, or it is plain that it will not: it stays paused, or its clock runs
 * and it has no picture, or nobody could see it. Else one that has begun is waited for to the end.
 * @param end when there is no more time, by `performance.now()`
 */
export async function whenShown(film: HTMLVideoElement, end: number): Promise<void> {
  const start = performance.now();
  for (let frames = 0; performance.now() < end; frames++) {
    const hasShown = film.getVideoPlaybackQuality().totalVideoFrames > 0;
    if ((film.error || hasShown) && hasStarted(film)) return;
    const patient = frames >= PATIENCE.frames && performance.now() - start >= PATIENCE.time;
    if (patient && (film.paused || (film.currentTime > 0 && !willShow(film)))) return;
    await nextFrame();
  }
}

/** It runs, or did: what has just begun has not told of it yet. */
export function hasStarted(medium: HTMLMediaElement): boolean {
  return !medium.paused || globalThis.mivketNotebook.played.has(medium);
}

/** It runs, has pictures by its own account, and is where they are drawn. */
function willShow(film: HTMLVideoElement): boolean {
  return film.videoWidth > 0 && isInView(film);
}

/** The width of a film's pictures by their height; null where none came. */
export function readRatio(film: HTMLVideoElement | null): number | null {
  return film && film.videoHeight > 0 ? film.videoWidth / film.videoHeight : null;
}
