import { nextFrame } from './shared.js';

/** Waits for so many frames: how far apart they were, ms, in the middle. */
export async function awaitFrames(count: number): Promise<number> {
  const begun = performance.now();
  for (let shown = 0; shown < count; shown++) await nextFrame();
  return (performance.now() - begun) / count;
}
