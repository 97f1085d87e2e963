import { UNSEEN } from '../../core/standards/elements.js';
import type { ElementFact, Facts } from '../../core/evidence.js';
import { withElements } from '../../facts/objects.js';
import type { BrowserPage } from '../page/browser-page.js';
import { defineStep } from './step.js';

export const rulesStep = defineStep({
  name: 'rules',
  phase: 'changed by trying',
  kind: 'reaching',
  isDue: ({ job, setting }) => job.render.variant === 'as-is' && setting.around.ownPage,
  take: ({ page, facts }) => tryRules(page, facts.elements),
  tells: (_facts, reaching) => ({ reaching }),
});

/**
 * Which of the page's own rules change the snippet's elements: they are taken away one at a time, and put back.
 * @throws Error where the page does not answer
 */
async function tryRules(
  page: Pick<BrowserPage, 'read'>,
  all: readonly ElementFact[],
): Promise<Facts['reaching']> {
  const elements = all.filter(({ tag }) => !UNSEEN.has(tag));
  if (elements.length === 0) return [];
  const ids = elements.map(({ id }) => id);
  return withElements(await page.read('findReaching', ids), { elements });
}
