import type { TimedFact } from '../core/evidence.js';
import { joinTraits } from '../core/markup/traits.js';
import { rest } from './collect/rest.js';
import type { Job } from './life/job.js';
import { loadPage } from './load-page.js';
import type { Sources } from './page/served-page.js';
import type { BrowserPage } from './page/browser-page.js';
import type { Setting } from './setting.js';
import { sumByScript } from './steps/whose-work.js';

/** So often it is loaded: what one load takes another may not. */
const LOADS = 3;

/**
 * Loads a page again and again, in a tab that is ready and is left so, until it has come to rest, and tells what code of its snippets did meanwhile.
 * @param prepare makes it ready for one more
 * @returns of each snippet, load by load
 */
export async function timeLoads(
  page: BrowserPage,
  sources: Pick<Sources, 'address'>,
  setting: Setting,
  { subject }: Pick<Job, 'subject'>,
  prepare: () => Promise<void>,
): Promise<TimedFact[][][]> {
  const { reach, limits, budget } = setting;
  const timed: TimedFact[][][] = subject.traits.map(() => []);
  for (let i = 0; i < LOADS && !budget.isOver; i++) {
    const works = await page.running.timeWork(async () => {
      await loadPage(page, sources, setting);
      await rest(page, joinTraits(subject.traits), limits, true);
    });
    for (const [of, loads] of timed.entries()) {
      const found = sumByScript(works, { page, served: reach.served, of }, ({ ms }) => ms);
      loads.push(found.map(({ place: { from, address }, amount: ms }) => ({ from, address, ms })));
    }
    await prepare();
  }
  return timed;
}
