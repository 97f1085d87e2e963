import { isMeasured, type Evidence } from '../../core/evidence.js';
import type { Render } from '../../core/render.js';
import { attempt, getState, type Done } from './attempt.js';
import { POSING, type Job, type Subject } from './job.js';
import { Lanes, MOST_LANES } from './lanes.js';
import type { Loading } from './load-windows.js';
import type { Booth } from './booths.js';
import type { Rendered } from '../stage.js';

/** How pictures are taken. */
interface PosingOptions {
  /** In what state a booth is left. */
  leaves: 'clean' | 'used';
  /** Each page is loaded: several may be side by side. */
  apart: boolean;
}

/**
 * Takes the pictures of what was rendered, each page loaded once more for it: to take one makes a page paint and
 * load what it would not, and whatever was measured afterwards would depend on that. What cannot be taken has none.
 */
export async function poseAll(
  loading: Loading,
  subject: Subject,
  evidence: readonly Evidence[][],
  { leaves, apart }: PosingOptions,
): Promise<Evidence[][]> {
  const posed = [...evidence];
  const idle: Booth[] = [];
  const lanes = new Lanes(loading.seats, apart ? MOST_LANES : 1);
  for (const [i, all] of evidence.entries()) {
    if (!mayPose(all)) continue;
    await lanes.enter();
    if (loading.budget.isOver || loading.signal?.aborted) break;
    const posing = pose(loading, subject, all[0]!, idle, apart).then((taken) => {
      posed[i] = all.map((one, of) => withShots(one, taken?.evidence[of]));
    });
    // What breaks down has no picture, and costs no other.
    lanes.add(posing.catch(() => undefined));
  }
  await lanes.end();
  for (const booth of idle) await booth.leave(leaves);
  loading.signal?.throwIfAborted();
  return posed;
}

function mayPose(all: readonly Evidence[]): boolean {
  const isFirst = all[0]!.render.after === null;
  return isFirst && all.some((one) => one.shot === null && isMeasured(one, 'page'));
}

async function pose(
  loading: Loading,
  subject: Subject,
  { render }: Evidence,
  idle: Booth[],
  apart: boolean,
): Promise<Rendered | null> {
  // Who holds a booth cannot wait for one that is given up when all its booths are free.
  const booth = idle.pop() ?? (await loading.enter(apart ? 'urgent' : 'shared'));
  const tried = await take(loading, booth, subject, render).catch(async (error: unknown) => {
    await booth.leave('used');
    throw error;
  });
  const taken = tried.done;
  const isSpent = taken === null || taken.evidence[0]!.scripts.hung !== null;
  if (isSpent) await tried.booth.leave(getState(tried));
  else idle.push(tried.booth);
  return taken;
}

async function take(
  loading: Loading,
  booth: Booth,
  subject: Subject,
  render: Render,
): Promise<Done<Rendered>> {
  const baseline = await loading.find(render);
  const job: Job = { ...POSING, subject, render, baseline, known: [] };
  return attempt(loading, booth, job);
}

function withShots(one: Evidence, taken: Evidence | undefined): Evidence {
  return taken ? { ...one, shot: one.shot ?? taken.shot, harm: taken.harm ?? null } : one;
}
