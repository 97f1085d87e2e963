import { PageCopy } from './copy.js';
import { Sweep, type SweepWish, type Swept } from './sweep.js';

/** How windows are searched. */
export interface SearchWish extends SweepWish {
  /** The window as it stands, px. */
  width: number;
  height: number;
}

/** Tries windows on a copy of the page. Resolves to null where it cannot be copied so that it comes out the same. */
export async function searchWidths(wish: SearchWish): Promise<Swept | null> {
  const copy = PageCopy.make(wish.height);
  if (!copy) return null;
  try {
    copy.setWidth(wish.width);
    if (!(await copy.arrive()) || !copy.matches(wish.ids)) return null;
    return new Sweep(copy, wish).run();
  } finally {
    copy.remove();
  }
}
