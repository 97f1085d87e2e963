import type { Facts } from '../evidence.js';
import { TOLERANCE } from './culprits.js';
import type { Sticking } from './sticking.js';

/** When something began to stick out. */
export type When = 'load' | 'animation' | 'later' | 'scroll';

/** Since when an element sticks out: at load, after an animation, some time after load, or only once the page was scrolled. */
export function getWhen({ element, edge, side }: Sticking, page: Facts['page']): When {
  const { early, box } = element;
  if (page.readAt === 'after-scroll') return 'scroll';
  if (early === null) return 'load';
  const getOver = ({ left, right }: { left: number; right: number }) =>
    side === 'left' ? edge - left : right - edge;
  // What paints beyond its box may have done so before.
  const byBox = getOver({ left: box.x, right: box.x + box.width }) > TOLERANCE;
  if (!byBox || getOver(early) > TOLERANCE) return 'load';
  return early.animated ? 'animation' : 'later';
}

const WORDS: Record<When, string> = {
  load: '',
  animation: ', after an animation',
  later: ', some time after load',
  scroll: ', after a scroll through the page',
};

/** The same in words, to be put behind what was measured; '' for what was there at load. */
export function describeWhen(at: When): string {
  return WORDS[at];
}
