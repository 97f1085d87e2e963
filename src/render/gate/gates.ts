import { randomBytes } from 'node:crypto';
import type { Load } from '../../core/recording/exchange.js';
import type { GateLog } from './log.js';
import type { PageSource } from './page-server.js';
import type { GateRules } from './route.js';
import { takeThread, type Thread } from './thread.js';
import type { GateData } from './worker.js';

/** One gate, seen from the main thread. */
export interface GateHandle {
  port: number;
  /** What the browser has to show to be let through. */
  password: string;
  setPage(page: PageSource, load: Load): Promise<void>;
  /** A host that was silent answers from now on. */
  endSilence(): Promise<void>;
  /** What was refused, and what was asked for, since the last call. */
  takeLog(): Promise<GateLog>;
  close(): Promise<void>;
}

/**
 * All gates of a run, in a thread of their own: what the main thread is busy with must not bend
 * the timings of traffic. Should the thread break down, its gates are gone, and the next one is
 * opened in a new thread.
 */
export class Gates {
  #data: GateData;
  #thread: Thread;
  #last = 0;

  constructor(data: GateData) {
    this.#data = data;
    // It gets ready while the browser starts.
    this.#thread = takeThread(data);
  }

  /**
   * @param password what is to be shown; null where anybody may go through
   * @throws Error where the thread breaks down meanwhile
   */
  async open(
    rules: GateRules,
    password: string | null = randomBytes(18).toString('base64url'),
  ): Promise<GateHandle> {
    if (this.#thread.broken) this.#thread = takeThread(this.#data);
    const thread = this.#thread;
    const gate = ++this.#last;
    const port = (await thread.ask({ call: 'open', gate, rules, password })) as number;
    return {
      port,
      password: password ?? '',
      setPage: async (page, load) => void (await thread.ask({ call: 'page', gate, page, load })),
      endSilence: async () => void (await thread.ask({ call: 'answer', gate })),
      takeLog: async () => (await thread.ask({ call: 'log', gate })) as GateLog,
      close: async () => void (await thread.ask({ call: 'close', gate }).catch(() => undefined)),
    };
  }

  /** Ends all gates; what was recorded is then in its file. */
  async close(): Promise<void> {
    await this.#thread.close();
  }
}
