import type { Viewport, Variant } from '../core/render.js';
import type { BrowserProgram } from './browser/bundled.js';
import { BrowserKeeper } from './browser/keeper.js';
import { Tab } from './chromium/tab.js';
import { makeCertificate } from './gate/certificate.js';
import { Gates, type GateHandle } from './gate/gates.js';
import { checkProxies } from './gate/upstream.js';
import type { GateRefusal } from './gate/gate.js';
import type { GateRules } from './gate/route.js';
import type { GateData } from './gate/worker.js';
import type { BrowserPage } from './page/browser-page.js';
import type { ServedPage } from './page/served-page.js';

/** A context of its own with its own gate: where one snippet is rendered. */
export interface Place {
  /** The page that stands in the tab; null before the first. */
  shown: ServedPage | null;
  viewport: Viewport | null;
  variant: Variant | null;
  page: BrowserPage;
  gate: GateHandle;
  /** What the gate refused the page that stands there. */
  refusals: GateRefusal[];
  leave: (broken: boolean) => Promise<void>;
}

/** What a run writes down of its traffic, or is answered from. */
export type Memory = Pick<GateData, 'recordTo' | 'recording'>;

/** Browser and gates of a run. Close it: processes, ports and profiles go with it. */
export class Places {
  #keeper: BrowserKeeper;
  #gates: Gates;
  #rules: GateRules;
  #language: string;
  version = '';
  sandboxed = true;

  /** Starts the browser. @throws ToolError `browser-failed` */
  static async open(
    program: BrowserProgram,
    rules: GateRules,
    memory: Memory,
    language: string,
  ): Promise<Places> {
    if (!rules.offline && memory.recording === null) checkProxies();
    const certificate = await makeCertificate();
    const distrusted = memory.recordTo === null ? null : await makeCertificate();
    const keeper = new BrowserKeeper(program, { spki: certificate.spki, language });
    const gates = new Gates({ certificate, distrusted, ...memory });
    const places = new Places(keeper, gates, rules, language);
    try {
      const { browser, release } = await keeper.lease();
      places.version = browser.version;
      places.sandboxed = browser.sandboxed;
      await release(false);
    } catch (error) {
      await places.close();
      throw error;
    }
    return places;
  }

  private constructor(keeper: BrowserKeeper, gates: Gates, rules: GateRules, language: string) {
    this.#keeper = keeper;
    this.#gates = gates;
    this.#rules = rules;
    this.#language = language;
  }

  /** @param urgent others hold a place until this one is left: it does not wait for theirs */
  async enter(urgent = false): Promise<Place> {
    const { browser, release } = await this.#keeper.lease(urgent);
    const gate = await this.#gates.open(this.#rules);
    try {
      const visitor = { version: getNumber(browser.version), language: this.#language };
      const page: BrowserPage = await Tab.open(browser.connection, gate, visitor);
      const leave = async (broken: boolean) => {
        await page.close();
        await gate.close();
        await release(broken || browser.connection.closed);
      };
      return { shown: null, viewport: null, variant: null, page, gate, refusals: [], leave };
    } catch (error) {
      await gate.close();
      await release(true);
      throw error;
    }
  }

  async close(): Promise<void> {
    await Promise.all([this.#keeper.close(), this.#gates.close()]);
  }
}

/** The number in a product's name and version. */
function getNumber(product: string): string {
  return product.slice(product.indexOf('/') + 1);
}
