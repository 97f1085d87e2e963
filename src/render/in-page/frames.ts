import { nextFrame } from './shared.js';

/** Waits for so many frames, and tells of the longest time between two, ms. */
export async function awaitFrames(count: number): Promise<number> {
  let [before, longest] = [performance.now(), 0];
  for (let shown = 0; shown < count; shown++) {
    await nextFrame();
    const now = performance.now();
    longest = Math.max(longest, now - before);
    before = now;
  }
  return longest;
}
