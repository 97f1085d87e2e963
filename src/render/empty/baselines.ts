import type { Baseline } from '../../core/evidence.js';
import { CONDITIONS, type Render } from '../../core/render.js';
import { makeAlive } from '../life/attempt.js';
import type { Booth, Booths } from '../life/booths.js';

/** How baselines are made. */
export interface BaselineMaking {
  booths: Pick<Booths, 'enter'>;
  /** The page without the snippet that a render is held against. */
  toEmpty(render: Render): Render;
  /** Renders of one key are the same page. */
  getKey(empty: Render): string;
  make(booth: Booth, empty: Render): Promise<Baseline>;
  /** How a booth is left in which the page stood. */
  leaves: 'clean' | 'used';
  signal: AbortSignal | undefined;
}

/** So often a page is begun anew that could not be rendered, each time in a new booth as well. */
const MOST = 2;

/** The page without a snippet, rendered once a run for each page and viewport. */
export class Baselines {
  #making: BaselineMaking;
  #made = new Map<string, Promise<Baseline>>();
  /** By the key of a page in which no windows are searched, the same in which some are. */
  #searched = new Map<string, Render>();
  /** How often it was begun in vain. */
  #failed = new Map<string, number>();

  constructor(making: BaselineMaking) {
    this.#making = making;
  }

  /** Begins to render the page without a snippet, one viewport after the other, before it is asked for. */
  prepare(renders: readonly Render[]): void {
    const wanted = new Map(renders.map((render) => [this.#getKey(render), render]));
    const missing = [...wanted].filter(([key]) => !this.#made.has(key));
    let before: Promise<unknown> = Promise.resolve();
    const booth = missing.length > 0 ? this.#making.booths.enter('urgent') : null;
    for (const [key, render] of missing) {
      const empty = this.#toEmpty(render);
      const making = before
        .then(async () => this.#make(await booth!, empty))
        .catch(() => this.#makeAnew(empty));
      making.catch(() => this.#fail(key));
      this.#made.set(key, making);
      before = making.catch(() => undefined);
    }
    before.then(async () => (await booth)?.leave(this.#making.leaves)).catch(() => undefined);
  }

  /** Null where it could not be made: then nothing can be told from the page itself. */
  async find(render: Render): Promise<Baseline | null> {
    const key = this.#getKey(render);
    for (;;) {
      if (!this.#made.has(key)) this.prepare([render]);
      try {
        return await this.#made.get(key)!;
      } catch (error) {
        if (this.#making.signal?.aborted) throw error;
        if ((this.#failed.get(key) ?? 0) >= MOST) return null;
      }
    }
  }

  #getKey(render: Render): string {
    return this.#making.getKey(this.#toEmpty(render));
  }

  /** Who asks for no windows is served as well by the same page in which some are searched. */
  #toEmpty(render: Render): Render {
    const empty = this.#making.toEmpty(render);
    const page = this.#making.getKey({ ...empty, search: [] });
    if (empty.search.length === 0) return this.#searched.get(page) ?? empty;
    if (!this.#searched.has(page)) this.#searched.set(page, empty);
    return empty;
  }

  /** What broke down it is no use to wait for: whoever asks next has it made again, as long as there is hope. */
  #fail(key: string): void {
    const failed = (this.#failed.get(key) ?? 0) + 1;
    this.#failed.set(key, failed);
    if (failed < MOST) this.#made.delete(key);
  }

  /** A browser that broke down on the page alone is given one more chance, in a new booth. */
  async #makeAnew(render: Render): Promise<Baseline> {
    const { booths, make, leaves, signal } = this.#making;
    signal?.throwIfAborted();
    return makeAlive(booths, (booth) => make(booth, render), leaves);
  }

  /** A minute is lived on in a booth of its own, which nothing else can be loaded in. */
  #make(booth: Booth, empty: Render): Promise<Baseline> {
    const isLater = CONDITIONS[empty.variant].later;
    return isLater ? this.#makeAnew(empty) : this.#making.make(booth, empty);
  }
}
