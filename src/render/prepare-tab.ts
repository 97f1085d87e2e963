import { joinTraits } from '../core/markup/traits.js';
import { needsMakers } from './collect/makers.js';
import type { Booth } from './life/booths.js';
import { getLoad, type Job } from './life/job.js';
import type { Sources } from './page/served-page.js';
import type { Setting } from './setting.js';
import { asksRunning } from './steps/once.js';

/** Makes a tab and its gate ready for one more load. */
export async function prepareTab(
  booth: Pick<Booth, 'page' | 'gate' | 'log'>,
  sources: Sources,
  { terms, around }: Setting,
  { served, before }: Extract<Setting['reach'], { by: 'load' }>,
  job: Job,
): Promise<void> {
  const { page, gate } = booth;
  const { render, baseline, profile: profiled, scripted } = job;
  const { hostChanges, window } = around;
  const { pathname, search } = new URL(sources.address);
  const { headers, published } = sources;
  const { root, cold } = terms;
  const content = {
    ...{ html: served.html, headers, root, path: pathname + search, published },
    ...(render.outage !== undefined && { silent: render.outage }),
  };
  const { changes } = joinTraits(job.subject.traits);
  page.requests.silence(render.outage ?? null);
  await Promise.all([
    gate.setPage(content, getLoad(render)),
    page.prepare({
      ...{ viewport: window, variant: render.variant, before, cold, profiled, scripted },
      watched: job.watched,
      // Code runs otherwise for it: not where nobody asks, nor where it is to be told on which line it hangs.
      covered: changes && !profiled && asksRunning(job),
      traced: needsMakers({ changes, hostChanges, baseline }),
    }),
  ]);
  await gate.takeLog();
  booth.log = { refusals: [], entries: [] };
}
