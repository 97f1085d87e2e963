import type { Box } from '../evidence.js';
import { flatMap } from '../lists.js';

/** Areas are told in squares of so many pixels. */
export const SQUARE = 8;
/** Squares no further apart than this belong together: the words of a paragraph, the lines of a grid. */
const NEAR = 5;
/** What stands in the first and last rows is cut off, by a fraction of a pixel more or less. */
const EDGE = 2;
/** With more areas there is one, round all of them. */
const MOST_AREAS = 24;

/** Of a picture, px. */
type Size = Pick<Box, 'width' | 'height'>;

/** Squares of a picture in which something differs. */
export class Squares {
  readonly #marked = new Set<number>();
  readonly #of: Size;

  constructor(of: Size) {
    this.#of = of;
  }

  get count(): number {
    return this.#marked.size;
  }

  mark(x: number, y: number): void {
    if (y < EDGE || y >= this.#of.height - EDGE) return;
    this.#marked.add(name(Math.floor(y / SQUARE), Math.floor(x / SQUARE)));
  }

  /** What belongs together as one box each, px, from top to bottom. */
  toBoxes(): Box[] {
    const { width, height } = this.#of;
    const boxes = mergeTouching(this.#gather());
    const all = boxes.length > MOST_AREAS ? [boxes.reduce(join)] : boxes;
    return all
      .map(({ top, left, bottom, right }) => {
        const [x, y] = [left * SQUARE, top * SQUARE];
        const [endX, endY] = [(right + 1) * SQUARE, (bottom + 1) * SQUARE];
        return { x, y, width: Math.min(endX, width) - x, height: Math.min(endY, height) - y };
      })
      .sort((one, other) => one.y - other.y || one.x - other.x);
  }

  #gather(): Extent[] {
    const left = new Set(this.#marked);
    const found: Extent[] = [];
    for (const first of this.#marked) {
      if (!left.delete(first)) continue;
      const waiting = [first];
      let extent: Extent | null = null;
      for (let one = waiting.pop(); one !== undefined; one = waiting.pop()) {
        const [row, column] = [Math.floor(one / STEP), one % STEP];
        const own = { top: row, bottom: row, left: column, right: column };
        extent = extent ? join(extent, own) : own;
        for (const near of listNear(row, column)) if (left.delete(near)) waiting.push(near);
      }
      found.push(extent!);
    }
    return found;
  }
}

/** More squares than a row can have. */
const STEP = 2 ** 16;

function name(row: number, column: number): number {
  return row * STEP + column;
}

/** In squares, the last ones included. */
interface Extent {
  top: number;
  bottom: number;
  left: number;
  right: number;
}

function join(a: Extent, b: Extent): Extent {
  return {
    top: Math.min(a.top, b.top),
    bottom: Math.max(a.bottom, b.bottom),
    left: Math.min(a.left, b.left),
    right: Math.max(a.right, b.right),
  };
}

const STEPS = Array.from({ length: 2 * NEAR + 1 }, (_, i) => i - NEAR);

function listNear(row: number, column: number): number[] {
  // Beyond the left edge nothing is marked, nor far out to the right in the row before.
  return flatMap(STEPS, (down) => STEPS.map((across) => name(row + down, column + across)));
}

/** Boxes round what belongs together may lie over each other: these are one. */
function mergeTouching(all: readonly Extent[]): Extent[] {
  const merged: Extent[] = [];
  for (let one of all) {
    for (let i = merged.length - 1; i >= 0; i--) {
      if (!touches(merged[i]!, one)) continue;
      one = join(one, merged.splice(i, 1)[0]!);
      i = merged.length;
    }
    merged.push(one);
  }
  return merged;
}

function touches(a: Extent, b: Extent): boolean {
  return a.left <= b.right && b.left <= a.right && a.top <= b.bottom && b.top <= a.bottom;
}
