import { prepareRenders, selectRenders, type About, type Check } from './check.js';
import type { Baseline, Evidence, Interval } from './evidence.js';
import { markBounds } from './engines.js';
import { flatMap } from './lists.js';
import { getSlotRange, type House, type Slot } from './house/house.js';
import {
  CONDITIONS,
  getRenderKey,
  getPlace,
  nameRoom,
  type Render,
  type Viewport,
} from './render.js';
import { leavesSite } from './measure/site.js';
import { shareWindows } from './search/share.js';
import type { Snippet } from './snippet.js';

/** Slots and viewports asked for; what is left out means all of the house. */
export interface PlanWish {
  slots: readonly Slot[];
  viewports: readonly Viewport[];
  /** From which window to which what is between the viewports is tried too; null or left out: it is not. */
  search?: Interval | null;
}

/** Every render of a snippet as it is: each slot at each viewport where it exists, in each way that code is put in. */
export function planRenders(name: string, house: House, wish: PlanWish): Render[] {
  const inserts = flatMap(house.insert, (insert) => wish.slots.map((slot) => ({ insert, slot })));
  return flatMap(inserts, ({ insert, slot }) => {
    const viewports = wish.viewports.filter(({ width }) => getSlotRange(slot, width) !== null);
    // A frame of its own has another window; and once is enough.
    const searched = insert === house.insert[0] && insert !== 'frame' ? wish.search : null;
    const windows = searched ? shareWindows(viewports, searched) : new Map<Viewport, never>();
    return viewports.map((viewport): Render => ({
      snippets: [{ name, slot: slot.name }],
      insert,
      viewport,
      engine: 'chromium',
      variant: 'as-is',
      after: null,
      scrolled: null,
      search: windows.get(viewport) ?? [],
    }));
  });
}

/** The renders in other variants that checks ask for, in view of those of the page as it is. */
export function planVariants(
  evidence: readonly Evidence[],
  checks: readonly Check[],
  baselines: ReadonlyMap<string, Baseline>,
  about: About,
): Render[] {
  const seen = markBounds(evidence, about, { checks });
  const asIs = prepareRenders(seen, baselines);
  const planned = flatMap(checks, ({ needs }) => {
    const others = needs.variants.filter(
      (variant) => variant !== 'as-is' && !CONDITIONS[variant].drilled,
    );
    if (others.length === 0) return [];
    return flatMap(asIs, (one) => {
      const [read] = selectRenders([one], { ...needs, variants: ['as-is'] });
      const called = read !== undefined && (needs.calls?.(read, about) ?? true);
      return called ? others.map((variant): Render => ({ ...one.evidence.render, variant })) : [];
    });
  });
  return [...new Map(planned.map((render) => [getRenderKey(render), render])).values()];
}

/** Whether a check is about hosts that do not answer: rendered only for whoever asks for that. */
export function isDrill({ needs }: Check): boolean {
  return needs.variants.some((variant) => CONDITIONS[variant].drilled);
}

/** Each host of others that the snippet asks for, silent in turn, in one window of each place. */
export function planOutages(
  evidence: readonly Evidence[],
  checks: readonly Check[],
  { house }: Pick<About, 'house'>,
  { published }: Pick<Snippet, 'published'>,
): Render[] {
  // Of a published page nothing is known to be there without it.
  if (published || !checks.some(isDrill)) return [];
  const asIs = evidence.filter(({ render }) => render.variant === 'as-is');
  const rooms = new Map(asIs.map((one) => [nameRoom(getPlace(one)), one.render]));
  const asked = flatMap(asIs, ({ traffic }) => traffic).filter(
    (one) => leavesSite(one, house.origin) && one.refused === null,
  );
  const hosts = [...new Set(asked.map(({ host }) => host))].sort();
  return flatMap([...rooms.values()], (render) =>
    hosts.map((outage): Render => ({ ...render, variant: 'outage', outage, search: [] })),
  );
}
