import type { Fact, RenderOf, Seen, Measures } from '../check.js';
import type { FrameFact } from '../evidence.js';
import type { Markup } from '../markup/markup.js';
import { blameElement, locateAttribute } from './blame.js';
import { TINY } from './framed.js';
import { tell } from '../tell.js';

/** The frames that a visitor can see, and whether they are waited with until they are scrolled to. */
export function listSeenFrames({ frames }: RenderOf<'frames'>): (FrameFact & { lazy: boolean })[] {
  return frames
    .filter(
      ({ shown, tag, box }) => shown && tag === 'iframe' && Math.min(box.width, box.height) > TINY,
    )
    .map((frame) => ({ ...frame, lazy: /^lazy$/i.test((frame.attributes.loading ?? '').trim()) }));
}

/** How a frame loads, set at the attribute that says so, or where it is to stand. */
export function tellLoading<M extends Measures>(
  markup: Markup,
  frame: FrameFact,
  seen: Seen<M>,
): Fact<Record<never, never>, M> {
  const blame = blameElement(markup, frame);
  const where = locateAttribute(markup, blame, 'loading');
  return tell.seen({ ...blame, where }, {}, seen, { group: '' });
}

/** By how far a frame begins below the first screen, px; negative where it begins in it. */
export function getDepth({ viewport }: RenderOf<'frames'>, { box }: FrameFact): number {
  return box.y - viewport.height;
}
