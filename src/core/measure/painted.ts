import type { Cell, PaintedPart } from '../evidence.js';

/**
 * So far apart a cell's mean colours are, of 255, that anybody sees it, and that letters on it, which are still there, are
 * harder to read: the shadow of what stands beside them is no harm. And its spreads, of the larger one.
 */
const FAR = 18;
const FAR_IN_LETTERS = 64;
const LESS = 0.4;
/** A spread of less is no letter and no picture. */
const INK = 4;

/** A cell is no narrower and no lower than these, px; and a part has no more of them. */
const LEAST_WIDTH = 40;
const LEAST_HEIGHT = 6;
const MOST_ACROSS = 4;
const MOST_DOWN = 80;

/** Into how many cells a part is divided: a line of text that is covered has two of them at least to itself. */
export function divide({ width, height }: Pick<PaintedPart, 'width' | 'height'>): {
  across: number;
  down: number;
} {
  const count = (size: number, least: number, most: number) =>
    Math.max(1, Math.min(most, Math.floor(size / least)));
  return {
    across: count(width, LEAST_WIDTH, MOST_ACROSS),
    down: count(height, LEAST_HEIGHT, MOST_DOWN),
  };
}

/**
 * Whether a part is painted otherwise: half of what shows something of it, or more; or the letters of so much of a line
 * are gone, which a shadow that falls on them leaves. Of another size its lines are others.
 * @param other without the snippet
 */
export function isRepainted(one: PaintedPart, other: PaintedPart): boolean {
  const isAlike = (size: 'width' | 'height') => Math.abs(one[size] - other[size]) <= 1;
  const [a, b] = [one.cells, other.cells];
  if (!isAlike('width') || !isAlike('height') || a.length !== b.length) return false;
  const pairs = a.map((one, i): [Cell, Cell] => [one, b[i]!]);
  const { across } = divide(one);
  const lines = Array.from({ length: Math.ceil(pairs.length / across) }, (_, i) =>
    pairs.slice(i * across, (i + 1) * across),
  );
  const inked = pairs.filter(isInked);
  const gone = lines.map(isLineGone);
  return (
    isHalf(inked.length > 0 ? inked : pairs, differ) ||
    gone.some((one, i) => one && gone[i + 1] === true)
  );
}

/** The edge of a line has less ink in its cells. What stands a fraction of a px elsewhere may lose a cell's, but not two. */
const MUCH_INK = 16;
const KEPT = 0.25;

function isLineGone(line: readonly [Cell, Cell][]): boolean {
  const inked = line.filter(([, [, , , ink]]) => ink > MUCH_INK);
  return inked.length > 0 && isHalf(inked, ([[, , , now], [, , , ink]]) => now < KEPT * ink);
}

function isHalf<T>(all: readonly T[], is: (one: T) => boolean): boolean {
  return all.filter(is).length * 2 >= all.length;
}

/** Something of the page alone shows there. */
function isInked([, [, , , ink]]: readonly [Cell, Cell]): boolean {
  return ink > INK;
}

function getInk(pair: readonly Cell[]): number {
  return Math.max(...pair.map(([, , , spread]) => spread));
}

function differ([a, b]: [Cell, Cell]): boolean {
  const far = isInked([a, b]) ? FAR_IN_LETTERS : FAR;
  const apart = ([0, 1, 2] as const).some((i) => Math.abs(a[i] - b[i]) > far);
  return apart || differInInk([a, b]);
}

function differInInk([a, b]: [Cell, Cell]): boolean {
  const ink = getInk([a, b]);
  return ink > INK && Math.abs(a[3] - b[3]) > LESS * ink;
}

/** The parts that look otherwise than in all of several pictures of the page without the snippet. What was not to be seen in one is left out. */
export function listRepainted(
  parts: readonly PaintedPart[],
  without: readonly (readonly PaintedPart[])[],
): PaintedPart[] {
  return parts.filter((part) =>
    without.every((all) => {
      const same = all.find(({ offset }) => offset === part.offset);
      return same !== undefined && isRepainted(part, same);
    }),
  );
}
