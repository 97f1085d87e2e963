import type { StoredFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { nameStored } from '../../facts/stored/collect.js';
import { within } from '../bounds/limit.js';
import type { BrowserPage } from '../page/browser-page.js';

/** How long it may take to be told, ms. */
const LIMIT = 1000;

/**
 * All that is stored on the visitor's device by now, of the page and of its frames.
 * @param runs there is code: without any there are cookies alone
 */
export async function readAllStored(
  page: Pick<BrowserPage, 'read' | 'readFrames' | 'listCookies'>,
  runs: boolean,
): Promise<StoredFact[]> {
  const [cookies, own, framed] = await Promise.all([
    within(page.listCookies(), LIMIT).catch(() => null),
    runs ? within(page.read('readStored'), LIMIT).catch(() => null) : null,
    runs ? page.readFrames('readStored', LIMIT).catch(() => []) : [],
  ]);
  const all = [own, ...framed.map(({ answer }) => answer)];
  const things = flatMap(all, (one) =>
    (one?.things ?? []).map((thing) => ({ ...thing, host: one!.host, days: null })),
  );
  // A frame of the page's own origin tells of the same again.
  const known = new Map([...(cookies ?? []), ...things].map((one) => [JSON.stringify(one), one]));
  return [...known.values()].sort((a, b) => nameStored(a).localeCompare(nameStored(b)));
}
