import type { RenderOf } from '../check.js';
import type { ElementFact } from '../evidence.js';
import { flatMap } from '../lists.js';
import { getPlaceKey, type Place } from '../render.js';

/** What of a render shows what a site's changes to the code do. */
export type Altered = RenderOf<'elements' | 'slot' | 'scripts'>;

/** What a site's changes do, in one place. */
export interface Effect {
  at: Place;
  /** By how many px more its content reaches beyond the slot, and is higher; less than 0 where it is lower. */
  wider: number;
  higher: number;
  /** What stayed has another size, or stands elsewhere beside the others. */
  moved: boolean;
  /** The first error that the code raises only then; null where there is none. */
  error: string | null;
}

/** Less is a matter of rounding, px. */
export const NOTHING = 1;

/** Holds what was rendered as the site keeps it against what was rendered as given. */
export function listEffects(renders: readonly Altered[]): Effect[] {
  return flatMap(renders, (kept): Effect[] => {
    if (kept.variant !== 'filtered') return [];
    const key = getPlaceKey({ ...kept.at, variant: 'as-is' });
    const given = renders.find(({ at }) => getPlaceKey(at) === key);
    return given ? [compare(given, kept)] : [];
  });
}

function compare(given: Altered, kept: Altered): Effect {
  const errors = new Set(given.scripts.console.map(getFirstLine));
  const beyond = ({ slot }: Altered) => Math.max(0, slot.overhang);
  return {
    at: kept.at,
    wider: round(beyond(kept) - beyond(given)),
    higher: round(kept.slot.box.height - given.slot.box.height),
    moved: isMoved(given.elements, kept.elements),
    error: kept.scripts.console.map(getFirstLine).find((one) => !errors.has(one)) ?? null,
  };
}

function isMoved(given: readonly ElementFact[], kept: readonly ElementFact[]): boolean {
  const before = new Map(listShown(given));
  const pairs = flatMap(listShown(kept), ([offset, after]) => {
    const one = before.get(offset);
    return one ? [{ before: one.box, after: after.box }] : [];
  });
  const [first] = pairs;
  // Where all of it stands is a matter of margins around.
  const isElsewhere = (axis: 'x' | 'y') =>
    pairs.some(({ before, after }) =>
      differ(after[axis] - first!.after[axis], before[axis] - first!.before[axis]),
    );
  const isOther = pairs.some(
    ({ before, after }) => differ(before.width, after.width) || differ(before.height, after.height),
  );
  return isOther || isElsewhere('x') || isElsewhere('y');
}

/** What stands in the source and is seen, by its place there. */
function listShown(elements: readonly ElementFact[]): [number, ElementFact][] {
  return flatMap(elements, (one): [number, ElementFact][] =>
    one.shown && 'offset' in one.from ? [[one.from.offset, one]] : [],
  );
}

function differ(a: number, b: number): boolean {
  return Math.abs(a - b) > NOTHING;
}

function getFirstLine(text: string): string {
  return text.split('\n')[0]!.trim();
}

function round(px: number): number {
  return Math.round(px * 10) / 10;
}
