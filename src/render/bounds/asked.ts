import type { FactKind, Gap } from '../../core/evidence.js';
import type { Budget } from './budget.js';
import { within } from './limit.js';

const LATE = 'the page did not answer in time';

/** How long an answer is waited for, and who is told that there was none. */
export interface Asking {
  ms: number;
  /** No longer than there is time for the snippet. */
  budget: Budget;
  gaps: Gap[];
}

/**
 * What a page tells when it is asked, `ms` at most; else `otherwise`, and that is a gap: what nobody
 * answered was not seen to be sound.
 */
export async function askOf<T>(
  kind: FactKind,
  asking: Promise<T>,
  { ms, budget, otherwise, gaps }: Asking & { otherwise: T },
): Promise<T> {
  const answer = await within(
    asking.then((value) => ({ value })),
    Math.min(ms, budget.left),
  ).catch(() => null);
  if (answer) return answer.value;
  gaps.push({ kind, why: budget.isOver ? budget.words : LATE, seen: null, kept: 1 });
  return otherwise;
}
