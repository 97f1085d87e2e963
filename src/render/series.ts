import type { Evidence } from '../core/evidence.js';
import type { Render } from '../core/render.js';
import { attempt, getState } from './attempt.js';
import { canWait, getHands, loseAll, QUICK, UNHURRIED, type Job } from './job.js';
import type { Loading } from './load-windows.js';
import type { Place } from './places.js';
import { settleWaiting } from './search-waiting.js';

/** How a series is rendered. */
export interface SeriesOptions {
  /** In what state a place is left. */
  leaves: 'clean' | 'used';
  /** Whether keys and fingers are tried. */
  hands: boolean;
  /** Nothing on the page can tell one kind of window from another. */
  kindless: boolean;
}

const NO_BASELINE = 'the page without the snippet could not be rendered';
const LOST = 'the browser broke down on it each time it was tried';

/**
 * Makes the renders of one page, one after the other in one place. What fails costs its own render.
 * @returns for each render the evidence of each of its snippets
 */
export async function renderSeries(
  loading: Loading,
  page: Pick<Job, 'texts' | 'traits' | 'trials'>,
  renders: readonly Render[],
  { leaves, hands, kindless }: SeriesOptions,
  onRender: () => void,
): Promise<Evidence[][]> {
  const { budget } = loading;
  const evidence: Evidence[][] = [];
  let place: Place | null = null;
  let hanging = false;
  let vain = false;
  let careful = false;
  try {
    for (const [at, render] of renders.entries()) {
      loading.signal?.throwIfAborted();
      const job: Job = {
        ...{ ...page, render, baseline: null, hanging, vain, careful },
        profile: hanging,
        scripted: true,
        light: false,
        hands: getHands(render, renders, hands),
        waits: kindless && canWait(render, renders.slice(at + 1)),
      };
      const done: Made = budget.isOver
        ? { evidence: loseAll(job, budget.words), place, careful }
        : await makeRender(loading, place, job);
      place = done.place;
      careful ||= done.careful;
      const [first] = done.evidence as [Evidence];
      hanging ||= first.scripts.hung !== null;
      vain ||= first.page.stillMoving.some((what) => what !== 'timers');
      evidence.push(done.evidence);
      onRender();
    }
    const waiting = page.trials.map((one) => one.waiting);
    await settleWaiting(waiting, evidence, async (render) => {
      if (budget.isOver) return null;
      const job = {
        ...page,
        trials: [],
        render,
        baseline: null,
        ...UNHURRIED,
        hanging,
        vain,
        careful,
      };
      const done = await makeRender(loading, place, { ...job, ...QUICK });
      place = done.place;
      return done.evidence;
    });
  } finally {
    await place?.leave(leaves);
  }
  return evidence;
}

/** The evidence of a render, and the place that the next one can be made in; null where that was left. */
interface Made {
  evidence: Evidence[];
  place: Place | null;
  /** It could be looked at only with care. */
  careful: boolean;
}

/** Whatever breaks down in it is a gap of this render. */
async function makeRender(loading: Loading, place: Place | null, job: Job): Promise<Made> {
  const { careful } = job;
  let at = place;
  try {
    const baseline = await loading.find(job.render);
    if (baseline === null) return { evidence: loseAll(job, NO_BASELINE), place, careful };
    at ??= await loading.enter('shared');
    return await tryTwice(loading, at, { ...job, baseline });
  } catch (error) {
    await at?.leave('used');
    if (loading.signal?.aborted) throw error;
    return { evidence: loseAll(job, loading.explain(error)), place: null, careful };
  }
}

/** A crash or a hang costs its render only: tried once more in a new place, then told as a gap. */
async function tryTwice(loading: Loading, place: Place, job: Job): Promise<Made> {
  const { budget, signal } = loading;
  const { careful } = job;
  const first = await attempt(loading, place, job);
  const known = first.done?.evidence ?? null;
  const hung = known?.[0]?.scripts.hung;
  const { gone, happened } = first.place.page;
  const { crashed } = happened;
  if (known && !hung && !crashed && !gone) return { evidence: known, place: first.place, careful };
  await first.place.leave(getState(first));
  if (known && (budget.isOver || (hung && job.hanging)))
    return { evidence: known, place: null, careful };
  if (budget.isOver) return { evidence: loseAll(job, budget.words), place: null, careful };
  const again = crashed ? tryAsCrashed(loading, job) : tryAgain(loading, job);
  const second = await again.catch((error: unknown) => {
    if (known === null || signal?.aborted) throw error;
    return null;
  });
  const evidence = known ?? loseAll(job, budget.isOver ? budget.words : LOST);
  return { ...(second ?? { evidence, careful }), place: null };
}

type Again = Omit<Made, 'place'>;

/** Once more in a new place; null where nothing comes of it. */
async function tryAgain(loading: Loading, job: Job): Promise<Again | null> {
  const tried = await attempt(loading, await loading.enter('shared'), { ...job, profile: true });
  await tried.place.leave(getState(tried));
  const { careful } = job;
  return tried.done && !tried.place.page.happened.crashed
    ? { evidence: tried.done.evidence, careful }
    : null;
}

/**
 * What crashed may have crashed of being looked at: it is looked at with care, and then without its code. What stands
 * then was taken down by that.
 */
async function tryAsCrashed(loading: Loading, job: Job): Promise<Again | null> {
  const careful = await tryAgain(loading, { ...job, careful: true });
  const live = job.scripted && job.traits.some((one) => one.live);
  if (careful || !live) return careful;
  return tryAgain(loading, { ...job, careful: true, scripted: false });
}
