import { makeSeen, type Fact, type RenderOf } from '../check.js';
import type { MediaFact, PictureFact, Size } from '../evidence.js';
import type { Markup } from '../markup/markup.js';
import { tell } from '../tell.js';
import { getMost } from '../words/list.js';
import { blameElement } from './blame.js';
import { formatPixels } from './units.js';

/** What pushes others down when its file comes: how large that is, px; null where it is not known. */
export interface Pushing {
  size: Size | null;
}

export type Pushes = { moves: number };

/** About a line: what moves by less is not noticed, px. */
const LEAST = 24;

/** Whether it is seen, and what stands below it moves when it comes. */
export function isPushing({ shown, pushes }: PictureFact | MediaFact): boolean {
  return shown && pushes > LEAST;
}

export function tellPushing(
  markup: Markup,
  render: RenderOf<never>,
  one: PictureFact | MediaFact,
): Fact<Pushing, Pushes> {
  const seen = makeSeen(render, { moves: one.pushes });
  return tell.seen(blameElement(markup, one), { size: one.pixels }, seen);
}

/** By how much at most, as `104 px`. */
export function formatMostPushed(seen: Fact<Pushing, Pushes>['seen']): string {
  return formatPixels(getMost(seen, 'moves'));
}

export function describePush({ moves }: Pushes): string {
  return `moves what stands below by ${formatPixels(moves)}`;
}
