import type { ElementFact, Facts, WidthSpan } from '../evidence.js';
import {
  getPageOverhang,
  isUnexplained,
  listPageCulprits,
  listSlotCulprits,
  listWideFrames,
  type PageView,
} from './sticking.js';

/** What of a render tells what is too wide in it; of frames their boxes only. */
export type FitView<F> = PageView &
  Pick<Facts, 'slot'> & { frames: readonly (F & Pick<ElementFact, 'shown' | 'box'>)[] };

/** Something that is too wide, for what, and by how many px; null for the page where nothing of the snippet's is. */
export interface TooWide<E> {
  for: WidthSpan['for'];
  element: E | null;
  overhang: number;
}

/** All that is told of a render as too wide. */
export function listTooWide<F>(view: FitView<F>): TooWide<ElementFact | F>[] {
  const over = getPageOverhang(view);
  const culprits = listPageCulprits(view);
  // Beside others it is not told: a scrollable width is whole px, and may be a little more than they reach.
  const alone = over !== null && culprits.length === 0 && isUnexplained(view);
  const found: TooWide<ElementFact | F>[] = [
    ...culprits.map((one) => ({ ...one, for: 'page' as const })),
    ...(alone ? [{ ...over, for: 'page' as const, element: null }] : []),
    ...listSlotCulprits(view).map((one) => ({ ...one, for: 'slot' as const })),
    ...listWideFrames(view).map((element) => ({
      for: 'frame' as const,
      element,
      overhang: element.box.width - view.slot.box.width,
    })),
  ];
  return found.map(({ for: what, element, overhang }) => ({
    for: what,
    element,
    overhang: Math.round(overhang * 100) / 100,
  }));
}
