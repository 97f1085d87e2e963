import type { Viewport, Variant } from '../../core/render.js';
import type { BrowserProgram } from '../browser/bundled.js';
import { Breakdown } from '../bounds/breakdown.js';
import { BrowserPool, type Wanted } from '../browser/pool.js';
import { DRIVERS } from '../drivers.js';
import { makeKey } from '../gate/key.js';
import { Gates, type GateHandle } from '../gate/gates.js';
import { checkProxies } from '../gate/upstream.js';
import type { GateLog } from '../gate/log.js';
import type { GateRules } from '../gate/route.js';
import type { GateData } from '../gate/worker.js';
import type { BrowserPage } from '../page/browser-page.js';
import type { ServedPage } from '../page/served-page.js';

/** A context of its own with its own gate: where one snippet is rendered. */
export interface Booth {
  /** The page that stands in the tab; null before the first. */
  shown: ServedPage | null;
  viewport: Viewport | null;
  variant: Variant | null;
  page: BrowserPage;
  gate: GateHandle;
  /** What the gate saw of the page that stands there. */
  log: GateLog;
  /** `clean`: no code was ever in it, so that it can be used again. Never throws; what was left stays left. */
  leave: (how: 'clean' | 'used' | 'broken') => Promise<void>;
}

/** A booth that was left clean, and can be used again. */
interface Spare {
  booth: Booth;
  isRetired(): boolean;
  hold(): void;
}

/** So often a booth is used again, in case its memory grows. */
const MOST_USES = 20;
/** So often a booth is opened whose browser or gate is gone at once. */
const TRIES = 3;

/** What a run writes down of its traffic, or is answered from. */
export type Memory = Pick<GateData, 'recordTo' | 'recording'>;

/** Browser and gates of a run. Close it: processes, ports and profiles go with it. */
export class Booths {
  #pool: BrowserPool;
  #gates: Gates;
  #rules: GateRules;
  #language: string;
  /** Places that were left clean. */
  #spare: Spare[] = [];
  #closed = false;
  /** Browser and gates are another's, and end with that. */
  #lent = false;
  /** All that are in the same browser. */
  #family = new Set<Booths>([this]);
  version = '';
  sandboxed = true;

  /** Starts the browser. @throws ToolError `browser-failed` */
  static async open(
    program: BrowserProgram,
    rules: GateRules,
    memory: Memory,
    language: string,
  ): Promise<Booths> {
    if (!rules.offline && memory.recording === null) checkProxies();
    const key = makeKey();
    const distrusted = memory.recordTo === null ? null : makeKey();
    const pool = new BrowserPool(DRIVERS.chromium, program, { spki: key.spki, language });
    const gates = new Gates({ key, distrusted, ...memory });
    const booths = new Booths(pool, gates, rules, language);
    try {
      const { browser, release } = await pool.lease();
      booths.version = browser.version;
      booths.sandboxed = browser.sandboxed;
      await release(false);
    } catch (error) {
      await booths.close();
      throw error;
    }
    return booths;
  }

  /** Others in the same browser, with rules of their own. */
  beside(rules: GateRules, language: string): Booths {
    const booths = new Booths(this.#pool, this.#gates, rules, language);
    booths.version = this.version;
    booths.sandboxed = this.sandboxed;
    booths.#lent = true;
    booths.#family = this.#family.add(booths);
    return booths;
  }

  private constructor(pool: BrowserPool, gates: Gates, rules: GateRules, language: string) {
    this.#pool = pool;
    this.#gates = gates;
    this.#rules = rules;
    this.#language = language;
  }

  /**
   * @param wanted how its browser is wanted
   * @throws ToolError `browser-failed`; Breakdown where the run is over, or all is gone each time
   */
  async enter(wanted: Wanted = 'shared'): Promise<Booth> {
    // A browser that is given up waits for all its booths, and the next one for that.
    for (const one of this.#family) await one.#giveUp((spare) => spare.isRetired());
    const spare = wanted === 'alone' ? undefined : this.#spare.pop();
    spare?.hold();
    if (spare) return spare.booth;
    for (let tries = 1; ; tries++) {
      try {
        return await this.#open(wanted);
      } catch (error) {
        if (this.#closed || tries === TRIES || !(error instanceof Breakdown)) throw error;
      }
    }
  }

  /** Leaves for good what was kept to be used again. */
  async #giveUp(isOver: (spare: Spare) => boolean): Promise<void> {
    const over = this.#spare.filter(isOver);
    this.#spare = this.#spare.filter((spare) => !over.includes(spare));
    for (const { booth, hold } of over) {
      hold();
      await booth.leave('used');
    }
  }

  async #open(wanted: Wanted): Promise<Booth> {
    const { browser, isRetired, release } = await this.#pool.lease(wanted);
    const gate = await this.#gates.open(this.#rules).catch(async (error: unknown) => {
      await release(false);
      throw error;
    });
    try {
      const page = await browser.openPage(gate, { language: this.#language });
      let uses = 0;
      let held = true;
      const hold = () => void (held = true);
      const leave: Booth['leave'] = async (how) => {
        if (!held) return;
        held = false;
        // A browser that is given up waits for all its booths.
        if (how === 'clean' && !page.aged && ++uses < MOST_USES && !isRetired())
          return void this.#spare.push({ booth, isRetired, hold });
        await page.close();
        await gate.close();
        await release(how === 'broken' || browser.gone);
      };
      const booth: Booth = {
        shown: null,
        viewport: null,
        variant: null,
        page,
        gate,
        log: { refusals: [], entries: [] },
        leave,
      };
      return booth;
    } catch (error) {
      await gate.close();
      await release(true);
      throw error;
    }
  }

  async close(): Promise<void> {
    this.#closed = true;
    this.#family.delete(this);
    if (this.#lent) return this.#giveUp(() => true);
    this.#spare = [];
    await Promise.all([this.#pool.close(), this.#gates.close()]);
  }
}
