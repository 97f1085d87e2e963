import type { Box, ElementFact } from '../../core/evidence.js';
import type { Collector } from '../collector.js';

/** What flashes without the snippet too is none of its doing. */
export const collectFlashing: Collector<'flashing'> = ({ flash, parted, flashingAlone }) => {
  if (!flash || !parted) return [];
  const { area, count, red } = flash;
  const element = findHolder(parted.elements, flash.box);
  if (!element && flashingAlone.some((one) => holds(one, flash.box))) return [];
  const { from = null, selector = null, box = flash.box } = element ?? {};
  return [{ from, selector, box, area, count, red }];
};

/** The smallest element that shows and holds most of it, the innermost of those of one size. */
function findHolder(elements: readonly ElementFact[], box: Box): ElementFact | null {
  const holders = elements.filter((one) => one.shown && holds(one.box, box)).reverse();
  return holders.sort((a, b) => getArea(a.box) - getArea(b.box))[0] ?? null;
}

/** So much of what flashes must be in what is to blame: its edges are known to some px alone. */
const MOST = 0.8;

function holds(a: Box, b: Box): boolean {
  const width = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x);
  const height = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y);
  return width > 0 && height > 0 && width * height >= MOST * getArea(b);
}

function getArea({ width, height }: Pick<Box, 'width' | 'height'>): number {
  return width * height;
}
