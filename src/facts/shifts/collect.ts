import type { ElementFact } from '../../core/evidence.js';
import type { Collector } from '../collector.js';
import type { ShiftsFact } from './fact.js';
import type { RawJump } from './read.js';

type Cause = ShiftsFact['causes'][number];

/** Elements that get their size from a file. */
const LOADED = new Set(['img', 'video', 'picture', 'svg', 'object', 'embed']);
const TOLERANCE = 2;
const HALF = 0.5;

export const collectShifts: Collector<'shifts'> = ({ reading, parted }) => {
  const jumps = reading?.objects.shifts ?? [];
  const causes = new Map<string, Cause>();
  const loaded: RawJump[] = [];
  for (const jump of jumps) {
    const found = findCause(jump, parted?.elements ?? []);
    if (!found) continue;
    if (found.how === 'sized-late' && LOADED.has(found.element.tag)) {
      loaded.push(jump);
      continue;
    }
    const { tag, from, selector } = found.element;
    const key = JSON.stringify([from, selector]);
    const score = (causes.get(key)?.score ?? 0) + jump.score;
    causes.set(key, { score, tag, from, selector, how: found.how });
  }
  return {
    score: sum(jumps.filter((jump) => !loaded.includes(jump))),
    loaded: sum(loaded),
    causes: [...causes.values()]
      .sort((a, b) => b.score - a.score)
      .map((one) => ({ ...one, score: round(one.score) })),
  };
};

/** The sum of jumps, to a thousandth. */
function sum(jumps: readonly RawJump[]): number {
  return round(jumps.reduce((total, { score }) => total + score, 0));
}

function round(score: number): number {
  return Math.round(score * 1000) / 1000;
}

/** What stands in the room that was made by the jump, or as large above it: the smallest. Else what was moved itself. */
function findCause(
  { moved }: RawJump,
  own: readonly ElementFact[],
): { element: ElementFact; how: Cause['how'] } | null {
  const ids = new Set(moved.map(({ id }) => id));
  const others = own.filter(({ id, shown }) => shown && !ids.has(id));
  const down = moved.filter(({ from, to }) => to > from + TOLERANCE);
  const highest = down.sort((a, b) => a.from - b.from)[0];
  if (highest) {
    const { from, to } = highest;
    const isLarge = (px: number) => px > (to - from) * HALF;
    const fills = ({ box }: ElementFact) =>
      isLarge(Math.min(box.y + box.height, to) - Math.max(box.y, from));
    // The browser names but the largest of what was moved: what is above that may have moved as well.
    const isAbove = ({ box }: ElementFact) => box.y <= from && isLarge(box.height);
    const cause = getLowest(others.filter(fills)) ?? getLowest(others.filter(isAbove));
    if (cause) return { element: cause, how: 'offset' in cause.from ? 'sized-late' : 'put-in' };
  }
  const shrunk = findShrunk(moved, others);
  if (shrunk) return { element: shrunk, how: 'sized-late' };
  const element = own.find(({ id }) => ids.has(id));
  return element ? { element, how: 'moved' } : null;
}

/** A picture or film that stands right above what was moved up: it was as high as its still before, or as any is. */
function findShrunk(
  moved: RawJump['moved'],
  others: readonly ElementFact[],
): ElementFact | undefined {
  const [highest] = moved
    .filter(({ from, to }) => from > to + TOLERANCE)
    .sort((a, b) => a.to - b.to);
  if (!highest) return undefined;
  const { from, to } = highest;
  const isAbove = ({ box }: ElementFact) =>
    box.y + box.height <= to + TOLERANCE && box.y + box.height >= to - (from - to);
  return getLowest(others.filter((one) => LOADED.has(one.tag) && isAbove(one)));
}

function getLowest(elements: readonly ElementFact[]): ElementFact | undefined {
  return [...elements].sort((a, b) => a.box.height - b.box.height || b.id - a.id)[0];
}
