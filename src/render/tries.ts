import type { Facts, Gap } from '../core/evidence.js';
import { listTooWide } from '../core/measure/too-wide.js';
import type { Render } from '../core/render.js';
import { askOf } from './asked.js';
import { tryHandling } from './handling.js';
import type { BrowserPage } from './page/browser-page.js';
import { tryRules } from './rules.js';
import { getRefusal, searchWindows, type Searched } from './search-windows.js';
import type { StageOptions, Trial } from './stage.js';
import { tryOut } from './trial/try-out.js';

type TriedFacts = Pick<Facts, 'causes' | 'widths' | 'reaching' | 'handling'>;

/** What is found out by changing the page, and by using it: when all else is read, the using last. */
export async function tryAll(
  page: BrowserPage,
  { render, of }: { render: Render; of: number },
  facts: Facts,
  gaps: Gap[],
  options: StageOptions,
): Promise<TriedFacts> {
  const { traits, trials, tries, searches, waits, limits, baseline, hostChanges, hands, budget } =
    options;
  const [own, whole] = [traits[of]!, trials[of]];
  if (whole) whole.bursts ||= listTooWide({ ...facts, baseline }).length > 0;
  const bursts = whole?.bursts ?? false;
  const search = { render, facts, baseline, own, hostChanges, bursts, gaps };
  const waiting = waits && whole ? wait(whole, search) : false;
  const searching = searches && !waiting;
  const others = whole?.waiting ?? [];
  const patience = Math.min(limits.hang, budget.left);
  const widths = searching ? await searchWindows(page, search, others, patience) : facts.widths;
  const { causes, reaching, handling } = facts;
  if (render.variant !== 'as-is') return { causes, widths, reaching, handling };
  const asked = { ms: limits.hang, budget, gaps };
  const trying = whole && tries ? tryOut(page, { ...whole, facts, baseline }) : null;
  const { slot, elements, frames, media } = facts;
  const handled = {
    slot: slot.name,
    elements,
    frames,
    media,
    windowHeight: options.window.height,
    live: own.changes,
  };
  return {
    widths,
    causes: trying ? await askOf('causes', trying, { ...asked, otherwise: causes }) : causes,
    reaching: options.ownPage
      ? await askOf('reaching', tryRules(page, elements), { ...asked, otherwise: reaching })
      : reaching,
    handling: await tryHandling(page, handled, hands, asked),
  };
}

/** Leaves a search to a later render, where there is anything to search. */
function wait({ waiting }: Trial, search: Searched): boolean {
  if (getRefusal(search)) return false;
  waiting.push({ ...search, found: null });
  return true;
}
