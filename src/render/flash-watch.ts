import { isShown, watchFlashes, type Watched } from './flashes.js';
import type { Living, Watching } from './living.js';
import type { BrowserPage } from './page/browser-page.js';

/** Steps of time after which no change back and forth that matters looks the same each time, ms. */
const LITTLE = [47, 71, 103];
/** So often it is tried whether anything goes on: what is painted now and then is no flash. */
const MOST_TRIED = 5;
/** So often it is watched for longer, each time over a second of the machine's. */
const MOST = 2;

/** Watches a page whose time is moved on, wherever anything in it is painted. */
export class FlashWatch {
  #page: BrowserPage;
  #watching: Watching;
  #left = MOST;
  #tries = MOST_TRIED;
  /** How many frames were shown when it was last looked at. */
  #count: number;

  /** null where nobody asks. */
  static async begin({ page, watches }: Living): Promise<FlashWatch | null> {
    if (!watches) return null;
    await page.screen.watch(watches.window);
    return new FlashWatch(page, watches);
  }

  private constructor(page: BrowserPage, watching: Watching) {
    this.#page = page;
    this.#watching = watching;
    this.#count = page.screen.count;
  }

  /**
   * Watches it as it stands, where something was painted since. What went on from the start was watched then.
   * @param isOther it looks otherwise than before
   * @param limit how long its code may take, ms
   * @returns what flashes, or why that is not known; null: nothing
   */
  async look(isOther: boolean, limit: number): Promise<Watched | null> {
    const isStill = this.#page.screen.count === this.#count;
    this.#count = this.#page.screen.count;
    const isDue = isOther || !(isStill || this.#watching.moved);
    if (!isDue || this.#left === 0 || this.#tries === 0) return null;
    this.#tries--;
    return (await this.#stirs(limit)) ? this.#lookOn(limit) : null;
  }

  /** Watches it at a place on its way down, where that shows more of the slot than its top does. */
  async lookDown(scrolled: number, limit: number): Promise<Watched | null> {
    const { slot, window } = this.#watching;
    const edges = await this.#page.read('findSlotEdges', slot);
    if (!edges || edges.bottom <= window.height) return null;
    const isSeen = edges.top < scrolled + window.height && edges.bottom > scrolled;
    return isSeen ? this.look(true, limit) : null;
  }

  /** Never throws: where the page is gone there is nothing to end. */
  async end(): Promise<void> {
    await this.#page.screen.rest().catch(() => undefined);
  }

  /** Whether anything is painted while its time is moved on by a little. */
  async #stirs(limit: number): Promise<boolean> {
    const { screen } = this.#page;
    const before = screen.count;
    for (const ms of LITTLE) await this.#page.pass(ms, limit, 'stands');
    return isShown(this.#page, before);
  }

  async #lookOn(limit: number): Promise<Watched | null> {
    this.#left--;
    await this.#page.pass(1, limit, 'flows');
    this.#page.screen.take();
    const watched = await watchFlashes(this.#page);
    await this.#page.pass(1, limit, 'stands');
    if (watched.flash) this.#left = 0;
    return watched.flash || watched.unseen !== null ? watched : null;
  }
}
