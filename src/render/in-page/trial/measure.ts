import type { CauseFact } from '../../../core/evidence.js';
import { flatMap } from '../../../core/lists.js';
import { generates, getRange, listOwnTexts } from '../ink.js';
import { listAroundInSlot } from '../slots.js';
import { cuts } from '../styles.js';

/** Something that is too wide, by its element's number. */
export type Aim = Pick<CauseFact, 'element' | 'by' | 'side' | 'edge' | 'room'>;

/** So many elements inside are looked at for how far something reaches. */
const MOST_INSIDE = 60;

/** By how many px something is too wide; 0 and less: it is not. */
export class Gauge {
  readonly #target: Aim;
  readonly #nodes: Element[];

  constructor(target: Aim) {
    this.#target = target;
    const { nodes, own } = globalThis.mivketNotebook;
    const node = target.element === null ? null : (nodes.get(target.element) ?? null);
    const inside =
      node && target.by === 'reach'
        ? [...own(node).querySelectorAll('*')].filter((one) => this.#isOut(one))
        : [];
    const around = node && target.by === 'reach' ? this.#listAround(node) : [];
    this.#nodes = node ? [node, ...inside.slice(0, MOST_INSIDE), ...around] : [];
  }

  read(): number {
    const { element, by, edge } = this.#target;
    if (element === null) return getScrollWidth() - edge;
    const [node] = this.#nodes;
    if (!node) return 0;
    if (by === 'width') return node.getBoundingClientRect().width - edge;
    return Math.max(...this.#nodes.map((one) => this.#beyond(this.#getShown(one))));
  }

  /** What it stands in, and is too wide by itself as well: it counts as soon as the inner one fits. */
  #listAround(node: Element): Element[] {
    return [...listAroundInSlot(node)].filter((at) => this.#isOut(at));
  }

  #beyond(x: number): number {
    const { side, edge } = this.#target;
    return side === 'left' ? edge - x : x - edge;
  }

  /** What an ancestor inside of what is looked at cuts off does not reach anywhere. */
  #isOut(node: Element): boolean {
    const { width, height } = globalThis.mivketNotebook.own(node).getBoundingClientRect();
    return width + height > 0 && !isHeld(node) && this.#beyond(this.#getReach(node)) > 0;
  }

  /** How far it is seen to reach: what is around it may scroll, once something was changed. */
  #getShown(node: Element): number {
    const left = this.#target.side === 'left';
    let reach = this.#getReach(node);
    // What fits, fits however it is cut.
    if (this.#beyond(reach) <= 0) return reach;
    for (const at of listAroundInSlot(node)) {
      if (!cuts(getComputedStyle(at).overflowX)) continue;
      const box = globalThis.mivketNotebook.own(at).getBoundingClientRect();
      reach = left
        ? Math.max(reach, box.left + window.scrollX)
        : Math.min(reach, box.right + window.scrollX);
    }
    return reach;
  }

  #getReach(node: Element): number {
    const bare = globalThis.mivketNotebook.own(node);
    const rect = bare.getBoundingClientRect();
    const left = this.#target.side === 'left';
    const pieces = flatMap(listOwnTexts(node), (text) => [...getRange(text).getClientRects()]);
    const style = getComputedStyle(node);
    const shown = cuts(style.overflowX) ? [] : pieces.filter(({ width }) => width > 0);
    const reaches = [rect, ...shown].map((one) => (left ? one.left : one.right));
    // Generated boxes stand in no element: how far they reach is told by how far can be scrolled.
    if (!left && generates(node) && bare.scrollWidth > bare.clientWidth && !cuts(style.overflowX))
      reaches.push(rect.left + bare.clientLeft + bare.scrollWidth);
    return (left ? Math.min(...reaches) : Math.max(...reaches)) + window.scrollX;
  }
}

/** Something around it, inside of its slot, scrolls or cuts off what reaches beyond. */
export function isHeld(node: Element): boolean {
  for (const at of listAroundInSlot(node)) if (cuts(getComputedStyle(at).overflowX)) return true;
  return false;
}

/** How far the page can be scrolled, and as much as is seen, px. */
export function getScrollWidth(): number {
  const { page } = globalThis.mivketNotebook;
  return (page.scrollingElement ?? page.documentElement).scrollWidth;
}
