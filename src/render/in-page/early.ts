import { SLOT_ATTRIBUTE } from '../../core/host/slot-attribute.js';
import { nextFrame, toPageBox, walk } from './shared.js';

/** Where the snippet's elements were when the page had loaded, before it came to rest. */
export interface Early {
  /** Something was in motion. */
  animated: boolean;
  /** From where to where, page px, by the elements' numbers. */
  ends: Map<number, { left: number; right: number }>;
}

/** So many elements are noted. */
const MOST = 2000;

/** Notes that as soon as the page has loaded: whoever asks later may come when it is over. */
export function watchLoad(): void {
  window.addEventListener('load', () =>
    noteEarly(globalThis.mivketNotebook.page.scripts.length > 0),
  );
}

/**
 * What is asked for while a page loads may come before it has loaded or after: what that does belongs to the load
 * either way.
 */
export async function forgetEarly(): Promise<void> {
  await nextFrame();
  await nextFrame();
  globalThis.mivketNotebook.early = null;
}

/** Notes that, where it can be otherwise later: something moves, or code is at work. What was noted before stays. */
export function noteEarly(live: boolean): void {
  const book = globalThis.mivketNotebook;
  const moves = book.page.getAnimations().some(({ playState }) => playState === 'running');
  if (!live && !moves) return;
  const { animated, ends } = book.early ?? { animated: false, ends: new Map() };
  for (const slot of book.page.querySelectorAll(`[${SLOT_ATTRIBUTE}]`))
    for (const real of walk([slot])) {
      if (ends.size >= MOST) break;
      const id = book.idOf(real);
      if (ends.has(id)) continue;
      const { x, width } = toPageBox(book.own(real).getBoundingClientRect());
      ends.set(id, { left: x, right: x + width });
    }
  book.early = { animated: animated || moves, ends };
}
