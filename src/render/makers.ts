import type { Baseline } from '../core/evidence.js';
import type { RawPage } from './collect/elements.js';
import type { RawObjects } from './collect/objects.js';
import type { Maker, Makers } from './own.js';
import { listMade, partElements, placeElements, type Parted } from './own.js';
import { Askers, getFrames, type Owner } from './requests.js';
import type { ServedPage } from './sources.js';
import type { Tab } from './tab.js';

/** So many are looked into one by one. */
const MOST = 300;

/** What whose something is depends on, besides what was read. */
export interface Around {
  page: ServedPage;
  changes: boolean;
  hostChanges: boolean;
  script: number | null;
  scripts: readonly number[];
  baseline: Baseline | null;
}

/** Only where both the page and the snippet have code is it asked who made what. */
export function needsMakers({
  changes,
  hostChanges,
  baseline,
}: Pick<Around, 'changes' | 'hostChanges' | 'baseline'>): boolean {
  return changes && hostChanges && baseline !== null;
}

/** From now on the browser keeps in mind what call made each element. Before the page is loaded. */
export async function traceMakers(tab: Tab): Promise<void> {
  tab.traced = true;
  await tab.session.send('DOM.enable');
  await tab.session.send('DOM.setNodeStackTracesEnabled', { enable: true });
}

/** Parts the snippet's from the host's; asks who made what, where both could have. */
export async function part(
  tab: Tab,
  raw: RawPage,
  objects: RawObjects,
  around: Around,
): Promise<Parted> {
  const placed = placeElements(around.page, raw);
  const makers = needsMakers(around)
    ? await findMakers(tab, listMade(placed), around)
    : new Map<number, Maker>();
  return partElements(placed, raw, objects, { ...around, makers });
}

async function findMakers(
  tab: Tab,
  ids: readonly number[],
  { page, scripts }: Around,
): Promise<Makers> {
  const askers = new Askers(tab.traffic.requests, {
    page,
    pageAddress: tab.address,
    mainFrame: tab.targetId,
    frames: [],
  });
  const found = await Promise.all(
    ids.slice(0, MOST).map(async (id) => {
      const owner = await findMaker(tab, id, askers).catch(() => null);
      return owner ? ([[id, toMaker(owner, scripts)]] as const) : [];
    }),
  );
  return new Map(found.flat());
}

async function findMaker(tab: Tab, id: number, askers: Askers): Promise<Owner | null> {
  const { session } = tab;
  const { result } = await session.send('Runtime.evaluate', {
    expression: `mivketNotebook.nodes.get(${id})`,
    contextId: tab.world,
    userGesture: false,
  });
  if (!result.objectId) return null;
  const { nodeId } = await session.send('DOM.requestNode', { objectId: result.objectId });
  const { creation } = await session.send('DOM.getNodeStackTraces', { nodeId });
  return askers.findRunner(getFrames(creation));
}

function toMaker(owner: Owner, scripts: readonly number[]): Maker {
  if (owner.to === 'host') return { by: 'host' };
  const { from } = owner;
  if (!('offset' in from)) return { by: 'snippet', ...from };
  // The call stands somewhere in the script: what is named is its tag.
  const script = scripts.findLast((offset) => offset <= from.offset) ?? null;
  return { by: 'snippet', script, line: null };
}
