import { PageCopy } from './copy.js';
import type { FitWish } from './fit.js';
import { Sweep, type SweepWish, type Swept } from './sweep.js';

/** How windows are searched. */
export interface SearchWish extends Omit<FitWish, 'wide' | 'only'> {
  /** The window as it stands, px. */
  width: number;
  height: number;
  parts: readonly SearchPart[];
}

/** Windows of one kind. */
export interface SearchPart extends Pick<SweepWish, 'intervals' | 'wide'> {
  /** As high as these windows are, px. */
  height: number;
  /** How the page was in a window of another kind than the one it stands in; null where it is of the same. */
  other: OtherWindow | null;
}

export interface OtherWindow {
  width: number;
  scrollWidth: number;
  /** Of the snippet's own elements, in their order: px of the page. */
  boxes: readonly { x: number; width: number }[];
  /** Its scroll bars take no room. */
  bare: boolean;
}

/** Tries windows on a copy of the page. Resolves to null for those where it does not come out as the page does. */
export async function searchWidths(wish: SearchWish): Promise<(Swept | null)[]> {
  const copy = PageCopy.make(wish.height);
  if (!copy) return wish.parts.map(() => null);
  try {
    copy.setWidth(wish.width);
    if (!(await copy.arrive()) || !copy.matches(wish.ids)) return wish.parts.map(() => null);
    return wish.parts.map((part) => sweep(copy, wish, part));
  } finally {
    copy.remove();
  }
}

function sweep(copy: PageCopy, wish: SearchWish, part: SearchPart): Swept | null {
  const { slot, ids, cap } = wish;
  const { intervals, wide, height, other } = part;
  copy.setHeight(height);
  copy.setBare(other?.bare ?? false);
  if (other && !copy.matchesOther(ids, other)) return null;
  return new Sweep(copy, { slot, ids, cap, wide, intervals }).run();
}
