import {
  FITTING_KINDS,
  type Baseline,
  type Facts,
  type Gap,
  type WidthSpan,
  type WidthsFact,
} from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import type { Traits } from '../../core/markup/traits.js';

import { ELEMENT_CAP } from '../collect/read.js';
import { getRenderKey, type Render } from '../../core/render.js';
import { within } from '../bounds/limit.js';
import type { OtherWindow, SearchPart } from '../in-page/widths/search.js';
import type { Swept } from '../in-page/widths/sweep.js';
import type { BrowserPage } from '../page/browser-page.js';
import { defineStep, type ReadScene } from './step.js';

/** The windows that a render names, and those that renders before left to it. */
export const windowsStep = defineStep({
  name: 'windows',
  phase: 'changed by trying',
  kind: 'widths',
  timesItself: true,
  // The neutral page is as wide as any window.
  isDue: ({ job, setting }) => job.render.variant === 'as-is' || setting.around.ownPage,
  take: (scene) => {
    const { page, job, setting, markup, facts, known } = scene;
    const searched = toSearched(scene);
    if (job.postpones && markup && !getRefusal(searched)) {
      const key = getRenderKey(job.render);
      return Promise.resolve({
        widths: facts.widths,
        postponed: { key, ...searched },
        settled: [],
      });
    }
    const { limits, budget } = setting;
    const patience = Math.min(limits.hang, budget.left);
    return searchWindows(page, searched, known.postponed, patience);
  },
  tells: (_facts, { widths }) => ({ widths }),
  learns: (known, { postponed, settled }) => {
    const done = new Map(settled.map(({ key, widths }) => [key, widths]));
    const open = known.postponed.filter(({ key }) => !done.has(key));
    return {
      ...known,
      postponed: postponed ? [...open, postponed] : open,
      settled: new Map([...known.settled, ...done]),
    };
  },
  teaches: (scene) => getRefusal(toSearched(scene)) === null,
});

function toSearched(scene: ReadScene): Searched {
  const { job, facts, baseline, own, setting, gaps, tooWide } = scene;
  const { hostChanges } = setting.around;
  return { render: job.render, facts, baseline, own, hostChanges, tooWide, gaps };
}

/** What came of the search of a render's windows. */
export interface Windows {
  widths: WidthsFact;
  /** A later render searches them with its own; null: none has to. */
  postponed: Postponed | null;
  /** What came of those that were left to this one. */
  settled: readonly Settled[];
}

/** What came of a search that was left to another render, which is known by its key. */
export interface Settled {
  key: string;
  widths: WidthsFact;
}

/** A snippet in a page that was read. */
interface Searched {
  render: Render;
  facts: Facts;
  /** The page without the snippet; null while that itself is rendered. */
  baseline: Baseline | null;
  own: Traits;
  hostChanges: boolean;
  /** Something was too wide here, or in a window before. */
  tooWide: boolean;
  gaps: readonly Gap[];
}

const BY_SCRIPT = 'what a script does at other widths only a load shows';
const BY_WIDTH = 'it chooses what it loads by the width of the window';
const NOT_ALIKE = 'a copy of the page did not come out as the page is';
const NOT_SEEN = 'not all of the page was seen';
const NO_ANSWER = 'the page did not answer in time';

/** A search that is made in another render of the same snippet, together with that one's own. */
export interface Postponed extends Searched {
  /** The render whose windows they are. @see getRenderKey */
  key: string;
}

/**
 * Tries the windows that a render names, and those of others that wait, `ms` at most. Never throws: what could
 * not be tried says why, or goes on waiting.
 */
async function searchWindows(
  page: Pick<BrowserPage, 'read'>,
  searched: Searched,
  waiting: readonly Postponed[],
  ms: number,
): Promise<Windows> {
  const { render, facts } = searched;
  const refuse = (why: string | null): Windows => ({
    widths: { ...facts.widths, unsearched: why },
    postponed: null,
    settled: [],
  });
  const refusal = getRefusal(searched);
  if (refusal) return refuse(refusal.why);
  const { width, height } = render.viewport;
  const ids = facts.elements.map(({ id }) => id);
  const own = { ...getPart(searched), other: null };
  const others = waiting.map((one) => ({ ...getPart(one), other: getOther(one) }));
  const wish = { slot: facts.slot.name, ids, cap: ELEMENT_CAP, width, height };
  try {
    const asking = page.read('searchWidths', { ...wish, parts: [own, ...others] });
    const answer = await within(
      asking.then((swept) => ({ swept })),
      ms,
    );
    if (!answer) return refuse(NO_ANSWER);
    const [first, ...rest] = answer.swept.map((one) => one && name(facts, one));
    const widths = tellWidths(searched, first) ?? refuse(NOT_ALIKE).widths;
    const settled = flatMap(waiting, (one, i): Settled[] => {
      const found = tellWidths(one, rest[i]);
      return found ? [{ key: one.key, widths: found }] : [];
    });
    return { widths, postponed: null, settled };
  } catch {
    return refuse(NO_ANSWER);
  }
}

/** Why windows are not tried, where they are not. */
function getRefusal({
  render,
  gaps,
  own,
  hostChanges,
  tooWide,
}: Searched): { why: string | null } | null {
  const { search, variant } = render;
  if (search.length === 0 || !/^(as-is|empty)$/.test(variant)) return { why: null };
  if (gaps.some(({ kind }) => FITTING_KINDS.includes(kind))) return { why: NOT_SEEN };
  // What a page's own script does with a snippet without any is guessed, and shown by loads.
  const tells = getTell(own, hostChanges && variant === 'empty');
  return tells !== null && !tooWide ? { why: tells } : null;
}

function getPart({ render, baseline }: Searched): Omit<SearchPart, 'other'> {
  const { search, viewport } = render;
  return { intervals: search, wide: baseline?.wide ?? [], height: viewport.height };
}

/** How the page was where the windows are of another kind. */
function getOther({ render: { viewport }, facts }: Searched): OtherWindow {
  const boxes = facts.elements.map(({ box: { x, width } }) => ({ x, width }));
  const { scrollWidth } = facts.page.atLoad;
  return { width: viewport.width, scrollWidth, boxes, bare: viewport.scrollBars === 'overlay' };
}

type Named = Omit<Swept, 'spans'> & Pick<WidthsFact, 'spans'>;

function tellWidths(
  { render, own, hostChanges }: Searched,
  swept: Named | null | undefined,
): WidthsFact | null {
  const tells = getTell(own, hostChanges);
  const about = { searched: render.search, unsearched: tells, guessed: tells !== null };
  return swept ? { ...swept, ...about } : null;
}

/** Elements as the source has them: numbers are a load's own. */
function name({ elements }: Facts, swept: Swept): Named {
  const getElement = (id: number | null): WidthSpan['element'] => {
    const element = elements.find((one) => one.id === id);
    return element ? { from: element.from, selector: element.selector } : null;
  };
  return {
    ...swept,
    spans: swept.spans.map((span) => ({ ...span, element: getElement(span.element) })),
  };
}

/** Why a copy cannot be trusted to do what a load does; null where it can. */
function getTell(own: Traits, hostChanges: boolean): string | null {
  if (own.changes || hostChanges) return BY_SCRIPT;
  return own.chooses ? BY_WIDTH : null;
}
