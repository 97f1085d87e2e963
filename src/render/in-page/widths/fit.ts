import type { WideSpan } from '../../../core/evidence.js';
import { listTooWide } from '../../../core/measure/too-wide.js';
import { FRAMES } from '../../../core/standards/elements.js';
import { readPage } from '../page.js';
import type { RawSpan } from './trail.js';
import { getWide } from '../../../core/search/spans.js';

/** What of a page is judged. */
export interface FitWish {
  slot: string;
  /** The snippet's own elements, by their numbers. */
  ids: readonly number[];
  /** Where the page is wider than the window without the snippet. */
  wide: readonly WideSpan[];
  /** So many elements are read. */
  cap: number;
  /** The snippet's elements and the slot, with all that they stand in. */
  only: ReadonlySet<Element>;
}

/** Something that is too wide, and by how many px. */
export type Overflowing = Pick<RawSpan, 'for' | 'element'> & { overhang: number };

/** All that is too wide in a window, as it would be told of a render. */
export function readFit(
  { slot: name, ids, wide, cap, only }: FitWish,
  width: number,
): Overflowing[] {
  const raw = readPage({ slots: [name], cap, detail: true, only });
  const [slot] = raw.slots;
  if (!slot) return [];
  const own = new Set(ids);
  const elements = raw.elements
    .filter(({ id }) => own.has(id))
    .map((one) => ({ ...one, from: { script: null, line: null }, selector: null }));
  const { width: atLoad, direction } = raw;
  const still = { afterScroll: null, focused: null, scrolled: 0, settings: [] };
  const found = listTooWide({
    page: { atLoad, direction, readAt: 'load', stillMoving: [], replaced: false, ...still },
    baseline: { scrollWidth: getWide(wide, width) },
    elements,
    slot,
    frames: elements.filter(({ tag }) => FRAMES.has(tag)),
  });
  return found.map((one) => ({ ...one, element: one.element && one.element.id }));
}
