import type { ElementFact, Facts } from '../core/evidence.js';
import { within, type Limits } from './limit.js';
import type { BrowserPage } from './page/browser-page.js';

/** Which of the page's own rules change the snippet's elements: they are taken away one at a time, and put back. */
export async function tryRules(
  page: BrowserPage,
  elements: readonly ElementFact[],
  limits: Limits,
): Promise<Facts['reaching']> {
  const own = new Map(elements.filter(({ exposed }) => exposed).map((one) => [one.id, one]));
  if (own.size === 0) return [];
  const asking = page.read('findReaching', [...own.keys()]).catch(() => []);
  const found = (await within(asking, limits.hang)) ?? [];
  return found.flatMap((raw) => {
    const element = own.get(raw.id);
    if (!element) return [];
    const { from, selector, box, shown, exposed, style } = element;
    return [{ ...raw, from, selector, box, shown, exposed, style }];
  });
}
