import { isInView, nextFrame } from './shared.js';

/** So many frames of the page, and so long, ms: a film that can begin does so within them on a busy machine too. */
const PATIENCE = { frames: 60, time: 1500 };

/** Those that run, or are let start by themselves where they are seen. */
export function listFilms(page: Document): HTMLVideoElement[] {
  const { media } = globalThis.mivketNotebook;
  return Array.from(page.querySelectorAll('video')).filter((film) => {
    if (film.error || film.readyState < HTMLMediaElement.HAVE_CURRENT_DATA) return false;
    const silent = film.muted || film.volume === 0;
    return !film.paused || (film.autoplay && silent && isInView(film) && !media.has(film));
  });
}

/**
 * Until a film has shown a picture, or it is plain that it will not: it stays paused, or its clock runs
 * without one. A film that has begun and does neither is waited for to the end.
 * @param end when there is no more time, by `performance.now()`
 */
export async function whenShown(film: HTMLVideoElement, end: number): Promise<void> {
  const start = performance.now();
  for (let frames = 0; performance.now() < end; frames++) {
    if (film.error || film.getVideoPlaybackQuality().totalVideoFrames > 0) {
      if (!film.paused || globalThis.mivketNotebook.media.has(film)) return;
    }
    const patient = frames >= PATIENCE.frames && performance.now() - start >= PATIENCE.time;
    if (patient && (film.paused || film.currentTime > 0)) return;
    await nextFrame();
  }
}
