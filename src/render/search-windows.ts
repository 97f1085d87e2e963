import {
  FITTING_KINDS,
  type Baseline,
  type Facts,
  type Gap,
  type WidthSpan,
} from '../core/evidence.js';
import type { Traits } from '../core/markup/traits.js';
import type { Render } from '../core/render.js';
import { ELEMENT_CAP } from './collect/read.js';
import { within } from './limit.js';
import type { BrowserPage } from './page/browser-page.js';

/** A snippet in a page that was read. */
export interface Searched {
  render: Render;
  facts: Facts;
  /** The page without the snippet; null while that itself is rendered. */
  baseline: Baseline | null;
  own: Traits;
  hostChanges: boolean;
  /** Something was too wide here, or in a window before. */
  bursts: boolean;
  gaps: readonly Gap[];
}

const BY_SCRIPT = 'what a script does at other widths only a load shows';
const BY_WIDTH = 'it chooses what it loads by the width of the window';
const NOT_ALIKE = 'a copy of the page did not come out as the page is';
const NOT_SEEN = 'not all of the page was seen';
const NO_ANSWER = 'the page did not answer in time';

/** Tries the windows that a render names, `ms` at most. Never throws: what could not be tried says why. */
export async function searchWindows(
  page: Pick<BrowserPage, 'read'>,
  { render, facts, baseline, own, hostChanges, bursts, gaps }: Searched,
  ms: number,
): Promise<Facts['widths']> {
  const { search: intervals, viewport } = render;
  const refuse = (why: string | null) => ({ ...facts.widths, unsearched: why });
  if (intervals.length === 0 || !/^(as-is|empty)$/.test(render.variant)) return refuse(null);
  if (gaps.some(({ kind }) => FITTING_KINDS.includes(kind))) return refuse(NOT_SEEN);
  const tells = getTell(own, hostChanges);
  if (tells !== null && !bursts) return refuse(tells);
  const { width, height } = viewport;
  const ids = facts.elements.map(({ id }) => id);
  const wish = { slot: facts.slot.name, ids, wide: baseline?.wide ?? [], cap: ELEMENT_CAP };
  try {
    const asking = page.read('searchWidths', { ...wish, intervals, width, height });
    const answer = await within(
      asking.then((swept) => ({ swept })),
      ms,
    );
    if (!answer) return refuse(NO_ANSWER);
    const { swept } = answer;
    if (!swept) return refuse(NOT_ALIKE);
    const spans = swept.spans.map((span) => ({ ...span, element: name(facts, span.element) }));
    return { ...swept, spans, searched: intervals, unsearched: tells, guessed: tells !== null };
  } catch {
    return refuse(NO_ANSWER);
  }
}

/** An element as the source has it: numbers are a load's own. */
function name({ elements }: Facts, id: number | null): WidthSpan['element'] {
  const element = elements.find((one) => one.id === id);
  return element ? { from: element.from, selector: element.selector } : null;
}

/** Why a copy cannot be trusted to do what a load does; null where it can. */
function getTell(own: Traits, hostChanges: boolean): string | null {
  if (own.changes || hostChanges) return BY_SCRIPT;
  return own.chooses ? BY_WIDTH : null;
}
