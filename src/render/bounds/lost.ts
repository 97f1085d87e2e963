import {
  CHANGING_KINDS,
  SEEN_KINDS,
  getEmptyFacts,
  listMissing,
  type Evidence,
} from '../../core/evidence.js';
import type { Render } from '../../core/render.js';
import { OVER } from './budget.js';

/** Why something was not seen that Mivket itself is to blame for. */
export const OWN_FAULT = 'Mivket itself failed on it';

/** The evidence of a render that gave none. */
export function makeLost(render: Render, of: number, why: string): Evidence {
  return { render, of, gaps: listMissing(SEEN_KINDS, why), ...getEmptyFacts(), shot: null };
}

/** Whether a gap may not be there the next time: it says nothing of the snippet. */
export function isPassing(why: string): boolean {
  return why === OWN_FAULT || OVER.test(why);
}

/** Evidence that more was to follow, and did not: of each kind something may be missing. */
export function markCut(all: readonly Evidence[], why: string): Evidence[] {
  return all.map((one) => {
    const gaps = CHANGING_KINDS.filter((kind) => !one.gaps.some((gap) => gap.kind === kind));
    const more = gaps.map((kind) => ({ kind, why, seen: null, kept: 1 }));
    return { ...one, gaps: [...one.gaps, ...more] };
  });
}
