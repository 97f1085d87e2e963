import { randomBytes } from 'node:crypto';
import { Worker } from 'node:worker_threads';
import type { Load } from '../../core/recording/exchange.js';
import { Breakdown } from '../bounds/breakdown.js';
import type { GateRefusal } from './gate.js';
import type { PageSource } from './page-server.js';
import type { GateRules } from './route.js';
import type { GateCall, GateData } from './worker.js';

/** What passes through is soon forgotten: room for much of it at once is room taken for good. */
const LITTLE = { maxYoungGenerationSizeMb: 6 };

/** One gate, seen from the main thread. */
export interface GateHandle {
  port: number;
  /** What the browser has to show to be let through. */
  password: string;
  setPage(page: PageSource, load: Load): Promise<void>;
  takeRefusals(): Promise<GateRefusal[]>;
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
    this.#thread = new Thread(data);
  }

  /**
   * @param password what is to be shown; null where anybody may go through
   * @throws Error where the thread breaks down meanwhile
   */
  async open(
    rules: GateRules,
    password: string | null = randomBytes(18).toString('base64url'),
  ): Promise<GateHandle> {
    if (this.#thread.broken) this.#thread = new Thread(this.#data);
    const thread = this.#thread;
    const gate = ++this.#last;
    const port = (await thread.ask({ call: 'open', gate, rules, password })) as number;
    return {
      port,
      password: password ?? '',
      setPage: async (page, load) => void (await thread.ask({ call: 'page', gate, page, load })),
      takeRefusals: async () => (await thread.ask({ call: 'refusals', gate })) as GateRefusal[],
      close: async () => void (await thread.ask({ call: 'close', gate }).catch(() => undefined)),
    };
  }

  /** Ends all gates; what was recorded is then in its file. */
  async close(): Promise<void> {
    await this.#thread.close();
  }
}

class Thread {
  #worker: Worker;
  #waiting = new Map<
    number,
    { resolve: (result: unknown) => void; reject: (error: Error) => void }
  >();
  #last = 0;
  #ended: Promise<void>;
  broken = false;

  constructor(data: GateData) {
    const file = new URL('./worker.js', import.meta.url);
    this.#worker = new Worker(file, { workerData: data, resourceLimits: LITTLE });
    this.#worker.unref();
    this.#worker.on('message', (message: { id: number; result?: unknown; error?: string }) => {
      const waiting = this.#waiting.get(message.id);
      this.#waiting.delete(message.id);
      if (message.error) waiting?.reject(new Error(message.error));
      else waiting?.resolve(message.result);
      if (this.#waiting.size === 0) this.#worker.unref();
    });
    this.#worker.on('error', () => this.#giveUp());
    this.#ended = new Promise((resolve) => this.#worker.on('exit', () => resolve()));
    void this.#ended.then(() => this.#giveUp());
  }

  ask(call: GateCall): Promise<unknown> {
    if (this.broken) return Promise.reject(new Breakdown(GONE));
    const id = ++this.#last;
    this.#worker.ref();
    return new Promise((resolve, reject) => {
      this.#waiting.set(id, { resolve, reject });
      this.#worker.postMessage({ id, ...call });
    });
  }

  async close(): Promise<void> {
    await this.ask({ call: 'finish' }).catch(() => undefined);
    // It ends by itself, so that it can keep what is worth keeping.
    this.#worker.ref();
    await this.#ended;
  }

  /** Nobody will answer any more. */
  #giveUp(): void {
    this.broken = true;
    for (const { reject } of this.#waiting.values()) reject(new Breakdown(GONE));
    this.#waiting.clear();
  }
}

const GONE = 'the thread of the gates is gone';
