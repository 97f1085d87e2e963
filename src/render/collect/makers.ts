import type { Reading } from './read.js';
import {
  listMade,
  partElements,
  placeElements,
  type Makers,
  type Parted,
  type Whose,
} from './own.js';
import { getAskers, type Owner } from './requests.js';
import type { BrowserPage } from '../page/browser-page.js';
import type { ServedPage } from '../page/served-page.js';

/** So many are looked into one by one. */
const MOST = 300;

/** What whose something is depends on, besides what was read. */
export interface MakersAbout extends Omit<Whose, 'makers'> {
  served: ServedPage;
  scripts: readonly number[];
}

/** Only where both the page and the snippet have code is it asked who made what. */
export function needsMakers({
  changes,
  hostChanges,
  baseline,
}: Pick<MakersAbout, 'changes' | 'hostChanges' | 'baseline'>): boolean {
  return changes && hostChanges && baseline !== null;
}

/** Parts the snippet's from the host's; asks who made what, where both could have. */
export async function part(
  page: BrowserPage,
  { raw, objects }: Pick<Reading, 'raw' | 'objects'>,
  around: MakersAbout,
): Promise<Parted> {
  const placed = placeElements(around.served, raw.elements, objects);
  const makers = needsMakers(around)
    ? await findMakers(page, listMade(placed), around)
    : new Map<number, Owner>();
  return partElements(placed, raw.elements, { ...around, makers });
}

async function findMakers(
  page: BrowserPage,
  ids: readonly number[],
  { served, of, scripts }: MakersAbout,
): Promise<Makers> {
  const askers = getAskers(page, served, of);
  const found = await Promise.all(
    ids.slice(0, MOST).map(async (id) => {
      const calls = await page.listMakers(id).catch(() => []);
      const owner = askers.findRunner(calls);
      return owner ? ([[id, nameScript(owner, scripts)]] as const) : [];
    }),
  );
  return new Map(found.flat());
}

/** The call stands somewhere in a script: what is named is its tag. */
function nameScript(owner: Owner, scripts: readonly number[]): Owner {
  if (owner.to === 'host' || !('offset' in owner.from)) return owner;
  const { offset } = owner.from;
  const script = scripts.findLast((tag) => tag <= offset) ?? null;
  return { ...owner, from: { script, line: null } };
}
