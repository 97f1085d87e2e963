import type { Size } from '../../core/evidence.js';
import { SLOT_ATTRIBUTE } from '../../core/host/slot-attribute.js';
import { getStatedLength } from './stated.js';
import { getEdge } from './styles.js';

/** The box that a picture or a film is drawn into, as it shows, px of the page. */
export function getDrawn(node: HTMLElement): Size {
  const style = getComputedStyle(node);
  const { width, height } = node.getBoundingClientRect();
  const inner = (shown: number, laid: number, sides: readonly string[]) => {
    const scale = laid > 0 ? shown / laid : 1;
    const edges = sides.reduce((sum, side) => sum + getEdge(style, side), 0);
    return Math.max(0, shown - edges * scale);
  };
  return {
    width: inner(width, node.offsetWidth, ['left', 'right']),
    height: inner(height, node.offsetHeight, ['top', 'bottom']),
  };
}

/**
 * By how much what stands below something moves down when its file comes, px: tried by making it what it is before.
 * @param bare its size where neither style nor file give one
 */
export function tryRoom(node: HTMLElement, bare: Size): number {
  const style = getComputedStyle(node);
  const isOut = /^(absolute|fixed)$/.test(style.position);
  const isAuto = (side: 'width' | 'height') => getStatedLength(node, side) === 'auto';
  if (isOut || style.aspectRatio !== 'auto' || !isAuto('height')) return 0;
  const ends = listEnds(node);
  const before = ends.map((end) => end());
  // No page sees it: nothing is painted meanwhile, and no attribute changes.
  const trial = node.animate(
    { height: `${bare.height}px`, ...(isAuto('width') && { width: `${bare.width}px` }) },
    { duration: 1, fill: 'both' },
  );
  trial.pause();
  trial.currentTime = 1;
  const moved = ends.map((end, i) => before[i]! - end());
  trial.cancel();
  return Math.max(0, ...moved);
}

/** What tells where the things after it begin, and where its slot ends, px. */
function listEnds(node: Element): (() => number)[] {
  const ends: (() => number)[] = [];
  const { parentOf, page } = globalThis.mivketNotebook;
  for (let at: Element | null = node; at && at !== page.body; at = parentOf(at)) {
    const [one, next]: [Element, Element | null] = [at, at.nextElementSibling];
    if (next) ends.push(() => next.getBoundingClientRect().top);
    if (!at.hasAttribute(SLOT_ATTRIBUTE)) continue;
    ends.push(() => one.getBoundingClientRect().bottom);
    break;
  }
  return ends;
}
