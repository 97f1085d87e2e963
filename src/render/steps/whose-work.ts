import { locateCode, type CodePlace } from '../../facts/scripts/locate.js';
import { getAskers } from '../collect/requests.js';
import type { BrowserPage } from '../page/browser-page.js';
import type { CallFrame } from '../page/request-log.js';
import type { ServedPage } from '../page/served-page.js';

/** A page and one of its snippets. */
export interface WorkedFor {
  page: Pick<BrowserPage, 'address' | 'mainFrame' | 'requests'>;
  served: ServedPage;
  of: number;
}

/** What of some work is a snippet's, by the script that it is in: what one function does another may do the next time. */
export function sumByScript<T extends { calls: readonly CallFrame[] }>(
  works: readonly T[],
  { page, served, of }: WorkedFor,
  getAmount: (work: T) => number,
): { place: CodePlace; amount: number }[] {
  const locate = locateCode({ page, of }, getAskers(page, served, of));
  const all = new Map<string, { place: CodePlace; amount: number }>();
  for (const work of works) {
    const place = locate(work.calls);
    if (!place) continue;
    const known = all.get(getScriptKey(place)) ?? { place, amount: 0 };
    all.set(getScriptKey(place), { ...known, amount: known.amount + getAmount(work) });
  }
  return [...all.values()];
}

/** Places of one key are in one script. */
export function getScriptKey({ address, from }: Pick<CodePlace, 'address' | 'from'>): string {
  return address ?? (from && 'script' in from ? JSON.stringify(from) : 'own');
}
