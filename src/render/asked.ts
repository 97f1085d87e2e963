import type { FactKind, Gap } from '../core/evidence.js';
import { within } from './limit.js';

const LATE = 'the page did not answer in time';

/**
 * What a page tells when it is asked, `ms` at most; else `otherwise`, and that is a gap: what nobody
 * answered was not seen to be sound.
 */
export async function askOf<T>(
  kind: FactKind,
  asking: Promise<T>,
  { ms, otherwise, gaps }: { ms: number; otherwise: T; gaps: Gap[] },
): Promise<T> {
  const answer = await within(
    asking.then((value) => ({ value })),
    ms,
  ).catch(() => null);
  if (answer) return answer.value;
  gaps.push({ kind, why: LATE, seen: null, kept: 1 });
  return otherwise;
}
