import type { FactKind } from '../../core/evidence.js';
import { readInCourse } from '../in-page/endless.js';
import { readObjects, type RawObjects } from './objects.js';
import { readPage, type RawPage } from '../in-page/page.js';
import { settle, type SettleWish } from '../in-page/settle.js';

/** What is to be read. */
export interface WholeWish {
  /** The names of the slots. */
  slots: readonly string[];
  /** So many elements are told at most. */
  cap: number;
  /** Where the objects are read: in the slots, on the page outside of them too, or not at all. */
  objects: 'slots' | 'everywhere' | 'not';
  /** The kinds of facts that somebody wants: of others no objects are read. */
  kinds: readonly FactKind[];
  /** It is read as it stands further down, but from its top: what stays in the window is where it was. */
  fromTop?: boolean;
}

/** What an answer tells of a page. */
export interface Whole {
  page: RawPage;
  /** null where they were not asked for. */
  objects: RawObjects | null;
}

/** Lets the page come to rest and reads it, where it did. */
export async function settleAndRead(
  settling: SettleWish,
  wish: WholeWish,
): Promise<{ moving: string[]; whole: Whole | null }> {
  const moving = await settle(settling);
  return { moving, whole: moving.length === 0 ? readWhole(wish) : null };
}

/** Reads the page and what stands on it in one go: nothing can happen in between. */
export function readWhole(wish: WholeWish): Whole {
  return readInCourse(() => (wish.fromTop ? readFromTop(wish) : readAtOnce(wish)));
}

/** At once, so that the page does not hear of it. */
function readFromTop(wish: WholeWish): Whole {
  const { scrollX: left, scrollY: top } = window;
  window.scrollTo({ top: 0, left: 0, behavior: 'instant' });
  try {
    return readAtOnce(wish);
  } finally {
    window.scrollTo({ top, left, behavior: 'instant' });
  }
}

function readAtOnce({ slots, cap, objects, kinds }: WholeWish): Whole {
  const plain = readPage({ slots, cap, detail: false });
  const page = sticksOut(plain) ? readPage({ slots, cap, detail: true }) : plain;
  return {
    page,
    objects:
      objects === 'not' ? null : readObjects({ cap, everywhere: objects === 'everywhere', kinds }),
  };
}

/** What paints beyond its box is asked for only where something does stick out. */
function sticksOut({ width, slots, strays }: RawPage): boolean {
  const bursts = slots.some((slot) => (slot?.overhang ?? 0) > 0);
  return width.scrollWidth > width.clientWidth || bursts || strays;
}
