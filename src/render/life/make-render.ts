import type { Evidence } from '../../core/evidence.js';
import type { Glimpse } from '../glimpse.js';
import type { Moment } from '../living.js';
import { attempt, getState } from './attempt.js';
import { loseAll, type Job } from './job.js';
import type { Learned } from './learned.js';
import type { Loading } from './load-windows.js';
import type { Booth } from './booths.js';

const NO_BASELINE = 'the page without the snippet could not be rendered';
const LOST = 'the browser broke down on it each time it was tried';

/** The evidence of a render, what it has taught, and the booth that the next one can be made in. */
export interface Made {
  evidence: Evidence[];
  /** What was seen later in it, and whether that is still to be looked at. */
  later: readonly Moment[];
  waits: boolean;
  /** How it looked at rest, where its minute is to be lived on. */
  rested: Glimpse | null;
  /** Something was painted all the time from the start, and was watched. */
  moved: boolean;
  /** When it did not answer any more within its first minute, s; null where it did. */
  stuck: number | null;
  /** What is known of each snippet from now on; null: what was known before. */
  learned: readonly Learned[] | null;
  /** null where it was left. */
  booth: Booth | null;
  /** It could be looked at only with care. */
  careful: boolean;
}

/** Whatever breaks down in it is a gap of this render. */
export async function makeRender(loading: Loading, booth: Booth | null, job: Job): Promise<Made> {
  let at = booth;
  try {
    const baseline = await loading.find(job.render);
    if (baseline === null) return { ...lose(job, NO_BASELINE), booth };
    const isLater = job.minute !== 'no';
    const later = isLater ? await loading.find({ ...job.render, variant: 'minute' }) : null;
    at ??= await loading.enter('shared');
    return await tryTwice(loading, at, { ...job, baseline, later });
  } catch (error) {
    await at?.leave('used');
    if (loading.signal?.aborted) throw error;
    return { ...lose(job, loading.explain(error)), booth: null };
  }
}

/** Nothing came of it, and nothing was learned. */
function lose(job: Job, why: string): Again {
  const { careful } = job;
  return { evidence: loseAll(job, why), ...NOT_LIVED, learned: null, careful };
}

/** A crash or a hang costs its render only: tried once more in a new booth, then told as a gap. */
async function tryTwice(loading: Loading, booth: Booth, job: Job): Promise<Made> {
  const { budget, signal } = loading;
  const { careful } = job;
  const first = await attempt(loading, booth, job);
  const known: Again | null = first.done && { ...first.done, careful };
  const hung = known?.evidence[0]?.scripts.hung;
  const { gone, happened } = first.booth.page;
  const { crashed } = happened;
  const unread = first.done?.unread ?? true;
  if (known && !unread && !hung && !crashed && !gone) return { ...known, booth: first.booth };
  await first.booth.leave(getState(first));
  if (known && (budget.isOver || (hung && job.hanging))) return { ...known, booth: null };
  if (budget.isOver) return { ...lose(job, budget.words), booth: null };
  const again = crashed ? tryAsCrashed(loading, job) : tryAgain(loading, job);
  const second = await again.catch((error: unknown) => {
    if (known === null || signal?.aborted) throw error;
    return null;
  });
  const otherwise = known ?? lose(job, budget.isOver ? budget.words : LOST);
  return { ...(second ?? otherwise), booth: null };
}

type Again = Omit<Made, 'booth'>;

export const NOT_LIVED = { later: [], waits: false, rested: null, moved: false, stuck: null };

/** Once more in a new booth; null where nothing comes of it. */
async function tryAgain(loading: Loading, job: Job): Promise<Again | null> {
  const tried = await attempt(loading, await loading.enter('shared'), { ...job, profile: true });
  await tried.booth.leave(getState(tried));
  const { careful } = job;
  const { done, booth } = tried;
  return done && !booth.page.happened.crashed ? { ...done, careful } : null;
}

/**
 * What crashed may have crashed of being looked at: it is looked at with care, and then without its code. What stands
 * then was taken down by that.
 */
async function tryAsCrashed(loading: Loading, job: Job): Promise<Again | null> {
  const careful = await tryAgain(loading, { ...job, careful: true });
  const live = job.scripted && job.subject.traits.some((one) => one.live);
  if (careful || !live) return careful;
  return tryAgain(loading, { ...job, careful: true, scripted: false });
}
