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
  const t0 = performance.now();
  const copy = PageCopy.make(wish.height);
  const t1 = performance.now();
  if (!copy) return null;
  try {
    copy.setWidth(wish.width);
    if (!(await copy.arrive()) || !copy.matches(wish.ids)) return null;
    const t2 = performance.now();
    const r = new Sweep(copy, wish).run();
    return { ...r, time: [t1 - t0, t2 - t1, performance.now() - t2] } as never;
  } finally {
    copy.remove();
  }
}
