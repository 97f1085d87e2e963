import type { BrowserProgram } from './bundled.js';
import { startBrowser, type Browser, type StartOptions } from './start.js';

/** After so many leases a browser is given up for a fresh one, in case its memory grows. */
const LEASES = 250;

interface Kept {
  starting: Promise<Browser>;
  leases: number;
  inUse: number;
  retired: boolean;
}

/** A browser that is used for a while. */
export interface Lease {
  browser: Browser;
  /** Whether it is to be given up as soon as nobody uses it any more. */
  isRetired(): boolean;
  release(broken: boolean): Promise<void>;
}

/** Keeps one browser running, starts another when it is gone or has served long enough. */
export class BrowserPool {
  #program: BrowserProgram;
  #options: StartOptions;
  #current: Kept | null = null;
  #all = new Set<Kept>();
  #closed = false;
  #waiting: (() => void)[] = [];

  constructor(program: BrowserProgram, options: StartOptions) {
    this.#program = program;
    this.#options = options;
  }

  /**
   * A running browser, and the call that gives it back.
   * @param urgent others hold theirs until this one is done: do not wait for them
   */
  async lease(urgent = false): Promise<Lease> {
    while (!urgent && !this.#closed && this.#isDraining())
      await new Promise<void>((resolve) => this.#waiting.push(resolve));
    if (this.#closed) throw new Error('the run is over');
    const kept = this.#current && !this.#current.retired ? this.#current : this.#start();
    kept.leases++;
    kept.inUse++;
    if (kept.leases >= LEASES) kept.retired = true;
    try {
      const browser = await kept.starting;
      if (browser.connection.closed) throw new Error('the browser is gone');
      const isRetired = () => kept.retired || browser.connection.closed;
      return { browser, isRetired, release: (broken) => this.#release(kept, broken) };
    } catch (error) {
      await this.#release(kept, true);
      throw error;
    }
  }

  async close(): Promise<void> {
    this.#closed = true;
    this.#wake();
    await Promise.all([...this.#all].map((kept) => this.#end(kept)));
  }

  /** Whether something still goes on in a browser that was given up: two at once are twice the memory. */
  #isDraining(): boolean {
    if (this.#current && !this.#current.retired) return false;
    return [...this.#all].some(({ inUse }) => inUse > 0);
  }

  #wake(): void {
    for (const resolve of this.#waiting.splice(0)) resolve();
  }

  #start(): Kept {
    const kept = {
      starting: startBrowser(this.#program, this.#options),
      leases: 0,
      inUse: 0,
      retired: false,
    };
    kept.starting.catch(() => undefined);
    this.#all.add(kept);
    return (this.#current = kept);
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
