import type { RawPage } from './collect/elements.js';
import type { RawObjects } from './collect/objects.js';
import {
  listMade,
  partElements,
  placeElements,
  type Makers,
  type Parted,
  type Whose,
} from './own.js';
import { Askers, getFrames, type Owner } from './requests.js';
import type { ServedPage } from './sources.js';
import type { Tab } from './tab.js';

/** So many are looked into one by one. */
const MOST = 300;

/** What whose something is depends on, besides what was read. */
export interface Around extends Omit<Whose, 'makers'> {
  page: ServedPage;
  scripts: readonly number[];
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
    : new Map<number, Owner>();
  return partElements(placed, raw, objects, { ...around, makers });
}

async function findMakers(
  tab: Tab,
  ids: readonly number[],
  { page, scripts }: Around,
): Promise<Makers> {
  const askers = getAskers(tab, page);
  const found = await Promise.all(
    ids.slice(0, MOST).map(async (id) => {
      const owner = await findMaker(tab, id, askers).catch(() => null);
      return owner ? ([[id, nameScript(owner, scripts)]] as const) : [];
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

/** The call stands somewhere in a script: what is named is its tag. */
function nameScript(owner: Owner, scripts: readonly number[]): Owner {
  if (owner.to === 'host' || !('offset' in owner.from)) return owner;
  const { offset } = owner.from;
  const script = scripts.findLast((tag) => tag <= offset) ?? null;
  return { to: 'snippet', from: { script, line: null } };
}

/** Who asked for what on the page that stands in a tab. */
export function getAskers(tab: Tab, page: ServedPage): Askers {
  const { address: pageAddress, targetId: mainFrame, traffic } = tab;
  return new Askers(traffic.requests, { page, pageAddress, mainFrame, frames: [] });
}
