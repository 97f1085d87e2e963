import { toPlainHouse } from '../core/house/plain.js';
import type { Events } from './events.js';
import { LazyRenderer, type Means } from './means.js';
import type { Plan } from './request.js';

/**
 * A browser, and what is known of the page around, for runs one after the other: what they have in common is not
 * started and looked at again. Close it: the browser goes with it.
 */
export class Workplace {
  #browser: LazyRenderer | null = null;
  #key = '';

  /** For a run; it is closed by whoever has the workplace. Null where the run is in need of one of its own. */
  async take(
    plan: Plan,
    means: Means,
    events: Events,
    signal: AbortSignal,
  ): Promise<LazyRenderer | null> {
    if (means.recordTo !== null || means.recording !== null) return null;
    const key = getKey(plan);
    if (key !== this.#key) await this.close();
    if (this.#browser) this.#browser.serve(plan, means, events);
    else this.#browser = new LazyRenderer(plan, means, events, signal);
    this.#key = key;
    return this.#browser;
  }

  /** What is begun anew afterwards may find other files, and another page. */
  async close(): Promise<void> {
    const browser = this.#browser;
    this.#browser = null;
    await browser?.close();
  }
}

/** What all runs must have in common. */
function getKey({ house, ownPage, root, wants, request }: Plan): string {
  const { browser, offline, jobs, standing, shots } = request;
  const alike = { browser, offline, jobs, standing, hasShots: shots !== undefined };
  return JSON.stringify([toPlainHouse(house), ownPage, root, wants, alike]);
}
