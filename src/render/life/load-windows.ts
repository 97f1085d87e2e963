import type { Baseline, Evidence } from '../../core/evidence.js';
import type { Render } from '../../core/render.js';
import { getWide } from '../../core/search/spans.js';
import { attempt } from './attempt.js';
import type { Wanted } from '../browser/pool.js';
import type { Budget } from '../bounds/budget.js';
import { QUICK, UNHURRIED, type Job, type Subject } from './job.js';
import type { Booth } from './booths.js';
import type { Seats } from './seats.js';
import type { Rendered } from '../stage.js';

/** What loads are made with. */
export interface Loading {
  /** The page without the snippet; null where it is not known. */
  find(render: Render): Promise<Baseline | null>;
  enter(wanted: Wanted): Promise<Booth>;
  /** How many loads may go on beside others. */
  seats: Seats;
  /** null where the browser broke down on it, or the time was over. */
  attempt(booth: Booth, job: Job): Promise<Rendered | null>;
  /** What the snippet may take as a whole. */
  budget: Budget;
  /** Whether pictures are wanted. */
  pictures: boolean;
  /** Why there is nothing where something was thrown. */
  explain(error: unknown): string;
  signal: AbortSignal | undefined;
}

/**
 * Loads a snippet's page in one window after the other, in a booth of its own, and stops where it hangs.
 * @param like a render of it that the others are to be like
 * @param choose the widths to load next, in view of what was loaded so far; none when it is enough
 */
export async function loadWindows(
  loading: Loading,
  subject: Subject,
  like: Render,
  choose: (loads: readonly Evidence[]) => readonly number[],
): Promise<Evidence[]> {
  const { find, enter, budget, signal } = loading;
  const loads: Evidence[] = [];
  let next = choose(loads);
  const baseline = next.length > 0 ? await find(like) : null;
  if (!baseline) return loads;
  let booth = await enter('shared');
  const common = { ...UNHURRIED, ...QUICK, subject, known: [] };
  let how: 'used' | 'broken' = 'used';
  try {
    for (; next.length > 0 && how === 'used'; next = choose(loads)) {
      for (const width of next) {
        signal?.throwIfAborted();
        if (budget.isOver) return loads;
        const viewport = { ...like.viewport, name: String(width), width };
        const empty = { ...baseline, scrollWidth: getWide(baseline.wide, width) };
        const render = { ...like, viewport, search: [] };
        const job: Job = { ...common, render, baseline: empty };
        const tried = await attempt(loading, booth, job);
        const { done } = tried;
        booth = tried.booth;
        loads.push(...(done?.evidence ?? []));
        if (done && !done.evidence[0]?.scripts.hung) continue;
        how = 'broken';
        break;
      }
    }
  } finally {
    await booth.leave(how);
  }
  return loads;
}
