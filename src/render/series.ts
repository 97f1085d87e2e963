import type { Evidence } from '../core/evidence.js';
import type { Render } from '../core/render.js';
import { canWait, getHands, loseAll, QUICK, UNHURRIED, type Job } from './job.js';
import type { Loading } from './load-windows.js';
import type { Place } from './places.js';
import type { Rendered } from './stage.js';
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

/**
 * Makes the renders of one page, one after the other in one place.
 * @returns for each render the evidence of each of its snippets
 */
export async function renderSeries(
  loading: Loading,
  page: Pick<Job, 'texts' | 'traits' | 'trials'>,
  renders: readonly Render[],
  { leaves, hands, kindless }: SeriesOptions,
  onRender: () => void,
): Promise<Evidence[][]> {
  const evidence: Evidence[][] = [];
  let place: Place | null = null;
  let hanging = false;
  let vain = false;
  try {
    for (const [at, render] of renders.entries()) {
      loading.signal?.throwIfAborted();
      place ??= await loading.enter();
      const baseline = await loading.find(render);
      const job: Job = {
        ...{ ...page, render, baseline, hanging, vain },
        profile: hanging,
        scripted: true,
        light: false,
        hands: getHands(render, renders, hands),
        waits: kindless && canWait(render, renders.slice(at + 1)),
      };
      if (baseline === null) evidence.push(loseAll(job, NO_BASELINE));
      else {
        const done = await tryTwice(loading, place, job);
        if (done.left) place = null;
        const [first] = done.evidence as [Evidence];
        hanging ||= first.scripts.hung !== null;
        vain ||= first.page.stillMoving.some((what) => what !== 'timers');
        evidence.push(done.evidence);
      }
      onRender();
    }
    const waiting = page.trials.map((one) => one.waiting);
    await settleWaiting(waiting, evidence, async (render) => {
      place ??= await loading.enter();
      const baseline = await loading.find(render);
      const job = { ...page, trials: [], render, baseline, ...UNHURRIED, hanging, vain, ...QUICK };
      return (await loading.attempt(place, job))?.evidence ?? null;
    });
  } finally {
    await place?.leave(leaves);
  }
  return evidence;
}

const LOST = 'the browser broke down twice on it';

/** A page that crashed is gone, and its browser as good as before: only what came to nothing otherwise is given up. */
function getState(place: Place, done: Rendered | null): 'used' | 'broken' {
  return done === null && !place.page.happened.crashed ? 'broken' : 'used';
}

/** A crash or a hang costs its render only: tried once more in a new place, then told as a gap. */
async function tryTwice(
  loading: Loading,
  place: Place,
  job: Job,
): Promise<{ evidence: Evidence[]; left: boolean }> {
  const first = await loading.attempt(place, job);
  const hung = first?.evidence[0]?.scripts.hung;
  const { crashed } = place.page.happened;
  if (first && !hung && !crashed) return { evidence: first.evidence, left: false };
  await place.leave(getState(place, first));
  if (hung && job.hanging) return { evidence: first.evidence, left: true };
  const second = await tryAgain(loading, { ...job, profile: true }, crashed);
  return { evidence: second ?? first?.evidence ?? loseAll(job, LOST), left: true };
}

/**
 * In a new place; where the page crashes again, also without its code: what stands then was taken down by it.
 * @param crashed it crashed the time before
 */
async function tryAgain(loading: Loading, job: Job, crashed: boolean): Promise<Evidence[] | null> {
  const place = await loading.enter();
  const done = await loading.attempt(place, job);
  const again = place.page.happened.crashed;
  await place.leave(getState(place, done));
  const live = job.scripted && job.traits.some((one) => one.live);
  if (done || !crashed || !again || !live) return done && done.evidence;
  return tryAgain(loading, { ...job, scripted: false }, false);
}
