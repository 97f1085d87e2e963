import { Breakdown } from '../bounds/breakdown.js';
import type { Job } from './job.js';
import type { Loading } from './load-windows.js';
import type { Booth, Booths } from './booths.js';
import type { Rendered } from '../stage.js';

/** So often work is done again whose browser was gone before its end. */
const MOST_DEATHS = 2;

/** What came of work, and the booth that it was last done in. */
export interface Done<T> {
  /** null where nothing came of it. */
  done: T | null;
  booth: Booth;
}

/**
 * Does work in a booth. A browser may go for whatever reason, and takes along all that is done in it: each of
 * these is done again in a browser of its own, so that whoever took it down takes nobody else along again.
 * @param enter gives such a booth
 * @param work what it throws while its browser stands goes through
 */
export async function doAlive<T>(
  booth: Booth,
  enter: () => Promise<Booth>,
  work: (booth: Booth) => Promise<T | null>,
): Promise<Done<T>> {
  let at = booth;
  let best: T | null = null;
  for (let deaths = 0; ; deaths++) {
    const done = await work(at).catch((error: unknown) => {
      if (!at.page.gone) throw error;
      return null;
    });
    best = done ?? best;
    if (!at.page.gone || deaths === MOST_DEATHS) return { done: best, booth: at };
    await at.leave('broken');
    at = await enter();
  }
}

/** A load of a snippet's page. */
export function attempt(loading: Loading, booth: Booth, job: Job): Promise<Done<Rendered>> {
  const work = (at: Booth) => loading.attempt(at, job);
  return doAlive(booth, () => loading.enter('alone'), work);
}

/** A page that crashed is gone, and its browser as good as before: only what came to nothing otherwise is given up. */
export function getState({ done, booth }: Done<Rendered>): 'used' | 'broken' {
  return done === null && !booth.page.happened.crashed ? 'broken' : 'used';
}

/**
 * The same for what others wait for, in a booth of its own.
 * @param leaves how that is left where nothing went wrong
 * @throws Breakdown where nothing comes of it
 */
export async function makeAlive<T>(
  booths: Pick<Booths, 'enter'>,
  work: (booth: Booth) => Promise<T>,
  leaves: 'clean' | 'used' = 'used',
): Promise<T> {
  const first = await booths.enter('urgent');
  const tried = await doAlive(first, () => booths.enter('alone'), work).catch(
    async (error: unknown) => {
      await first.leave('used');
      throw error;
    },
  );
  await tried.booth.leave(tried.done === null ? 'used' : leaves);
  if (tried.done === null) throw new Breakdown('the browser was gone each time');
  return tried.done;
}
