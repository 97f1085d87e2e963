import type { ElementFact, Facts } from '../core/evidence.js';
import { withElements } from '../facts/objects.js';
import { within, type Limits } from './limit.js';
import type { BrowserPage } from './page/browser-page.js';

/** Which of the page's own rules change the snippet's elements: they are taken away one at a time, and put back. */
export async function tryRules(
  page: BrowserPage,
  all: readonly ElementFact[],
  limits: Limits,
): Promise<Facts['reaching']> {
  const elements = all.filter(({ exposed }) => exposed);
  if (elements.length === 0) return [];
  const ids = elements.map(({ id }) => id);
  const asking = page.read('findReaching', ids).catch(() => []);
  return withElements((await within(asking, limits.hang)) ?? [], { elements });
}
