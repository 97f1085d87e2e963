import type { StoredFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { nameStored } from '../../facts/stored/collect.js';
import { patiently } from '../bounds/patience.js';
import type { StoredHere } from '../in-page/stored.js';
import type { BrowserPage } from '../page/browser-page.js';

/** How long it may take to be told, ms. */
const LIMIT = 1000;

/**
 * All that is stored on the visitor's device by now, of the page and of its frames; null where it is not told in time.
 * @param runs there is code: without any there are cookies alone
 */
export async function readAllStored(
  page: Pick<BrowserPage, 'read' | 'readFrames' | 'listCookies'>,
  runs: boolean,
): Promise<StoredFact[] | null> {
  const [cookies, own, framed] = await Promise.all([
    patiently(page.listCookies(), LIMIT).catch(() => null),
    runs ? readOwn(page) : NONE,
    runs ? page.readFrames('readStored', LIMIT).catch(() => []) : [],
  ]);
  if (cookies === null || own === null) return null;
  const all = [own.stored, ...framed.map(({ answer }) => answer)];
  const things = flatMap(all, (one) =>
    (one?.things ?? []).map((thing) => ({ ...thing, host: one!.host, days: null })),
  );
  // A frame of the page's own origin tells of the same again.
  const known = new Map([...cookies, ...things].map((one) => [JSON.stringify(one), one]));
  return [...known.values()].sort((a, b) => nameStored(a).localeCompare(nameStored(b)));
}

/** A page without an origin of its own stores nothing. */
const NONE = { stored: null };

function readOwn(page: Pick<BrowserPage, 'read'>): Promise<{ stored: StoredHere | null } | null> {
  const asked = page.read('readStored').then((stored) => ({ stored }));
  return patiently(asked, LIMIT).catch(() => null);
}
