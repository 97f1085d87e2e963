import { AT_WORK, awaitNetwork, rest } from './collect/rest.js';
import type { Lived, Living } from './living.js';

/** So long a host that is silent lets wait, s of the page's own time. */
const LATE = 10;

/**
 * Moves a page's own time on while a host is silent, lets that answer then, and reads what comes of it.
 * @param answer has it answer
 */
export async function answerLate(
  { page, limits, budget, read }: Living,
  answer: () => Promise<void>,
): Promise<Lived> {
  await page.pass(1000 * LATE, Math.min(limits.hang, budget.left), 'flows');
  page.requests.endSilence();
  await answer();
  await awaitNetwork(page, Math.min(limits.load, budget.left));
  await rest(page, AT_WORK, limits);
  return { moments: [await read({ after: LATE })], unseen: null };
}
