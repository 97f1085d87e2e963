import type { BrowserProgram } from './bundled.js';
import { ToolError } from '../../core/errors.js';
import { Breakdown } from '../bounds/breakdown.js';
import type { Driver, RunningBrowser, StartOptions } from '../page/engine.js';

/** After so many leases a browser is given up for a fresh one, in case its memory grows. */
const LEASES = 250;
/** So often a browser is started that ends before it can be used. */
const STARTS = 3;

/**
 * How a browser is wanted: `shared` with others, waiting where one is just being given up; `urgent`: others hold
 * theirs until this one is done, so it does not wait for them; `alone`: one of its own.
 */
export type Wanted = 'shared' | 'urgent' | 'alone';

interface Kept {
  starting: Promise<RunningBrowser>;
  /** As soon as it has started. */
  browser: RunningBrowser | null;
  leases: number;
  inUse: number;
  retired: boolean;
}

/** A browser that is used for a while. */
export interface Lease {
  browser: RunningBrowser;
  /** Whether it is to be given up as soon as nobody uses it any more. */
  isRetired(): boolean;
  release(broken: boolean): Promise<void>;
}

/** Keeps one browser running, starts another when it is gone or has served long enough. */
export class BrowserPool {
  #driver: Driver;
  #program: BrowserProgram;
  #options: StartOptions;
  #current: Kept | null = null;
  #all = new Set<Kept>();
  #closed = false;
  #waiting: (() => void)[] = [];

  constructor(driver: Driver, program: BrowserProgram, options: StartOptions) {
    this.#driver = driver;
    this.#program = program;
    this.#options = options;
  }

  /**
   * A running browser, and the call that gives it back.
   * @throws ToolError `browser-failed` where it does not start, or ends each time
   */
  async lease(wanted: Wanted = 'shared'): Promise<Lease> {
    for (let tries = 1; ; tries++) {
      while (wanted === 'shared' && !this.#closed && this.#isDraining())
        await new Promise<void>((resolve) => this.#waiting.push(resolve));
      if (this.#closed) throw new Breakdown('the run is over');
      const lease = await this.#take(wanted === 'alone' ? this.#start() : this.#getCurrent());
      if (lease) return lease;
      if (tries === STARTS) throw this.#explain();
    }
  }

  #getCurrent(): Kept {
    const { retired = true, browser = null } = this.#current ?? {};
    if (!retired && !browser?.gone) return this.#current!;
    return (this.#current = this.#start());
  }

  /** Null where it was gone before it could be used. @throws ToolError `browser-failed` where it does not start */
  async #take(kept: Kept): Promise<Lease | null> {
    kept.leases++;
    kept.inUse++;
    if (kept.leases >= LEASES || kept !== this.#current) kept.retired = true;
    try {
      const browser = (kept.browser = await kept.starting);
      if (browser.gone) throw new Breakdown('the browser is gone');
      const isRetired = () => kept.retired || browser.gone;
      return { browser, isRetired, release: (broken) => this.#release(kept, broken) };
    } catch (error) {
      await this.#release(kept, true);
      if (!(error instanceof Breakdown)) throw error;
      return null;
    }
  }

  #explain(): ToolError {
    const words = `The browser ${this.#program.path} ended by itself each of ${STARTS} times it was started.`;
    return new ToolError('browser-failed', words);
  }

  async close(): Promise<void> {
    this.#closed = true;
    this.#wake();
    await Promise.all([...this.#all].map((kept) => this.#end(kept)));
  }

  /** Whether something still goes on in a browser that was given up: two at once are twice the memory. */
  #isDraining(): boolean {
    if (this.#current && !this.#current.retired) return false;
    return [...this.#all].some(({ inUse, browser }) => inUse > 0 && !browser?.gone);
  }

  #wake(): void {
    for (const resolve of this.#waiting.splice(0)) resolve();
  }

  #start(): Kept {
    const kept: Kept = {
      starting: this.#driver.start(this.#program, this.#options),
      browser: null,
      leases: 0,
      inUse: 0,
      retired: false,
    };
    kept.starting.catch(() => undefined);
    this.#all.add(kept);
    return kept;
  }

  async #release(kept: Kept, broken: boolean): Promise<void> {
    kept.inUse--;
    if (broken) kept.retired = true;
    if (kept.retired && kept.inUse === 0) await this.#end(kept);
    this.#wake();
  }

  async #end(kept: Kept): Promise<void> {
    this.#all.delete(kept);
    if (this.#current === kept) this.#current = null;
    const browser = await kept.starting.catch(() => null);
    await browser?.close();
  }
}
