import type { Cell, PaintedPart } from '../evidence.js';

/** So far apart a cell's mean colours are, of 255, that anybody sees it, and its spreads, of the larger one. */
const FAR = 18;
const LESS = 0.4;
/** A spread of less is no letter and no picture. */
const INK = 4;

/** Whether a part is painted otherwise: half of what shows something of it, or more. Of another size its lines are others. */
export function isRepainted(one: PaintedPart, other: PaintedPart): boolean {
  const isAlike = (size: 'width' | 'height') => Math.abs(one[size] - other[size]) <= 1;
  if (!isAlike('width') || !isAlike('height')) return false;
  const [a, b] = [one.cells, other.cells];
  const pairs = a.map((one, i): [Cell, Cell] => [one, b[i]!]);
  const inked = pairs.filter((pair) => getInk(pair) > INK);
  const read = inked.length > 0 ? inked : pairs;
  return read.filter(differ).length * 2 >= read.length;
}

function getInk(pair: readonly Cell[]): number {
  return Math.max(...pair.map(([, , , spread]) => spread));
}

function differ([a, b]: [Cell, Cell]): boolean {
  const apart = ([0, 1, 2] as const).some((i) => Math.abs(a[i] - b[i]) > FAR);
  const ink = getInk([a, b]);
  return apart || (ink > INK && Math.abs(a[3] - b[3]) > LESS * ink);
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
