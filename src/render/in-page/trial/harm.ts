import { listOwnTexts } from '../ink.js';
import { cuts } from '../styles.js';
import { getScrollWidth, isHeld } from './measure.js';
import { breaksWords, hasTorn } from './torn.js';

/** What a change may do that is no cure: null where it does nothing of the kind. */
export type TrialHarm = 'page' | 'overflow' | 'text' | 'torn' | 'gone' | 'moved' | null;

/** So many elements are watched. */
const MOST = 600;
const NEAR = 1;
/** What is changed itself, and what stands in it, may become so much larger or smaller: as by a border that counts as part of it. */
const NEAR_INSIDE = 5;

interface Look {
  node: Element;
  left: number;
  right: number;
  width: number;
  height: number;
  /** How much of it is cut off or scrolled, px; 0 where nothing is. */
  cut: number;
  hasText: boolean;
}

interface Standing extends Look {
  /** Its words may come apart as it stands. */
  breaks: boolean;
}

/** The page as it stands, to be compared with itself after a change. */
export class Before {
  readonly #standing: Standing[];
  readonly #scrollWidth = getScrollWidth();
  readonly #edges: { left: number; right: number };

  constructor(slot: Element) {
    const nodes = [...slot.querySelectorAll('*')].slice(0, MOST);
    this.#standing = nodes.map((node) => {
      const one = look(node);
      return { ...one, breaks: one.hasText && breaksWords(node) };
    });
    const { left, right } = slot.getBoundingClientRect();
    this.#edges = { left, right };
  }

  /**
   * @param strict nothing may have moved at all, to the side or in size
   * @param changed the elements that were changed
   */
  compare(strict: boolean, changed: readonly Element[]): TrialHarm {
    if (getScrollWidth() > this.#scrollWidth + NEAR) return 'page';
    for (const before of this.#standing) {
      const inside = changed.some((one) => one.contains(before.node));
      const near = inside ? NEAR_INSIDE : NEAR;
      const harm = this.#compareOne(before, look(before.node), strict ? near : null);
      if (harm !== null) return harm;
    }
    return null;
  }

  /** @param near by how much it may have moved, px; null: as far as it likes */
  #compareOne(before: Standing, now: Look, near: number | null): TrialHarm {
    if (isSeen(before) && !isSeen(now)) return before.hasText ? 'text' : 'gone';
    if (!isSeen(before)) return null;
    // What is scrolled is not lost; what is cut off is.
    if (now.cut > Math.max(before.cut, 0) + NEAR) return 'text';
    const { left, right } = this.#edges;
    const isOther = now.width !== before.width || now.height !== before.height;
    if (isOther && now.hasText && !before.breaks && hasTorn(now.node, right - left)) return 'torn';
    const beyond = (one: Look) => Math.max(one.right - right, left - one.left, 0);
    if (beyond(now) > beyond(before) + NEAR && !isHeld(now.node)) return 'overflow';
    if (near === null) return null;
    const keys = ['left', 'width', 'height'] as const;
    return keys.some((key) => Math.abs(now[key] - before[key]) > near) ? 'moved' : null;
  }
}

function isSeen({ width, height }: Look): boolean {
  return width > 0 && height > 0;
}

function look(node: Element): Look {
  const { left, right, width, height } = node.getBoundingClientRect();
  const hasText = listOwnTexts(node).length > 0;
  return { node, left, right, width, height, cut: getCut(node), hasText };
}

/** How much of its content cannot be seen, nor scrolled to. */
function getCut(node: Element): number {
  if (node.scrollWidth <= node.clientWidth && node.scrollHeight <= node.clientHeight) return 0;
  const { overflowX, overflowY } = getComputedStyle(node);
  const isCut = (overflow: string) => cuts(overflow) && /hidden|clip/.test(overflow);
  return (
    (isCut(overflowX) ? Math.max(node.scrollWidth - node.clientWidth, 0) : 0) +
    (isCut(overflowY) ? Math.max(node.scrollHeight - node.clientHeight, 0) : 0)
  );
}
