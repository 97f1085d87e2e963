import { SLOT_ATTRIBUTE } from '../../core/host/slot-attribute.js';
import { toPageBox, walk } from './shared.js';

/** Where the snippet's elements were when the page had loaded, before it came to rest. */
export interface Early {
  /** Something was in motion. */
  animated: boolean;
  /** From where to where, page px, by the elements' numbers. */
  ends: Map<number, { left: number; right: number }>;
}

/** So many elements are noted. */
const MOST = 2000;

/** Notes that, where it can be otherwise later: something moves, or code is at work. */
export function noteEarly(live: boolean): void {
  const book = globalThis.mivketNotebook;
  const animated = book.page.getAnimations().some(({ playState }) => playState === 'running');
  if (!live && !animated) return;
  const ends: Early['ends'] = new Map();
  for (const slot of book.page.querySelectorAll(`[${SLOT_ATTRIBUTE}]`))
    for (const real of walk([slot])) {
      if (ends.size >= MOST) break;
      const { x, width } = toPageBox(book.own(real).getBoundingClientRect());
      ends.set(book.idOf(real), { left: x, right: x + width });
    }
  book.early = { animated, ends };
}
