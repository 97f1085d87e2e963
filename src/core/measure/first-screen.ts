import type { RenderOf } from '../check.js';
import type { FrameFact } from '../evidence.js';
import { TINY } from './framed.js';

/** The frames that a visitor can see, and whether they are waited with until they are scrolled to. */
export function listSeenFrames({ frames }: RenderOf<'frames'>): (FrameFact & { lazy: boolean })[] {
  return frames
    .filter(
      ({ shown, tag, box }) => shown && tag === 'iframe' && Math.min(box.width, box.height) > TINY,
    )
    .map((frame) => ({ ...frame, lazy: /^lazy$/i.test((frame.attributes.loading ?? '').trim()) }));
}

/** By how far a frame begins below the first screen, px; negative where it begins in it. */
export function getDepth({ viewport }: RenderOf<'frames'>, { box }: FrameFact): number {
  return box.y - viewport.height;
}
