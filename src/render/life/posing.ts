import { isMeasured, type Evidence } from '../../core/evidence.js';
import { attempt, getState, type Done } from './attempt.js';
import { POSING, type Job, type Subject } from './job.js';
import type { Loading } from './load-windows.js';
import type { Booth } from './booths.js';
import type { Rendered } from '../stage.js';

/**
 * Takes the pictures of what was rendered, each page loaded once more for it: to take one makes a page paint and
 * load what it would not, and whatever was measured afterwards would depend on that. What cannot be taken has none.
 */
export async function poseAll(
  loading: Loading,
  subject: Subject,
  evidence: readonly Evidence[][],
  leaves: 'clean' | 'used',
): Promise<Evidence[][]> {
  const posed: Evidence[][] = [];
  let booth: Booth | null = null;
  try {
    for (const all of evidence) {
      const [first] = all as [Evidence];
      const poses =
        first.render.after === null &&
        all.some((one) => one.shot === null && isMeasured(one, 'page'));
      if (!poses || loading.budget.isOver) {
        posed.push(all);
        continue;
      }
      booth ??= await loading.enter('shared');
      const baseline = await loading.find(first.render);
      const job: Job = { ...POSING, subject, render: first.render, baseline, known: [] };
      const tried: Done<Rendered> = await attempt(loading, booth, job);
      const taken = tried.done;
      const isSpent = taken === null || taken.evidence[0]!.scripts.hung !== null;
      if (isSpent) await tried.booth.leave(getState(tried));
      booth = isSpent ? null : tried.booth;
      posed.push(all.map((one, of) => withShots(one, taken?.evidence[of])));
    }
  } catch (error) {
    if (loading.signal?.aborted) throw error;
  } finally {
    await booth?.leave(leaves);
  }
  return evidence.map((all, i) => posed[i] ?? all);
}

function withShots(one: Evidence, taken: Evidence | undefined): Evidence {
  return taken ? { ...one, shot: one.shot ?? taken.shot, harm: taken.harm ?? null } : one;
}
