import { Worker } from 'node:worker_threads';
import type { Load } from '../../core/recording/exchange.js';
import type { GateRefusal } from './gate.js';
import type { PageSource } from './page-server.js';
import type { GateRules } from './route.js';
import type { GateCall, GateData } from './worker.js';

/** One gate, seen from the main thread. */
export interface GateHandle {
  port: number;
  setPage(page: PageSource, load: Load): Promise<void>;
  takeRefusals(): Promise<GateRefusal[]>;
  close(): Promise<void>;
}

/**
 * All gates of a run, in a thread of their own: what the main thread is busy with must not bend
 * the timings of traffic.
 */
export class Gates {
  #worker: Worker;
  #waiting = new Map<
    number,
    { resolve: (result: unknown) => void; reject: (error: Error) => void }
  >();
  #last = 0;

  constructor(data: GateData) {
    this.#worker = new Worker(new URL('./worker.js', import.meta.url), { workerData: data });
    this.#worker.unref();
    this.#worker.on('message', (message: { id: number; result?: unknown; error?: string }) => {
      const waiting = this.#waiting.get(message.id);
      this.#waiting.delete(message.id);
      if (message.error) waiting?.reject(new Error(message.error));
      else waiting?.resolve(message.result);
      if (this.#waiting.size === 0) this.#worker.unref();
    });
    this.#worker.on('error', (error: Error) => {
      for (const waiting of this.#waiting.values()) waiting.reject(error);
      this.#waiting.clear();
    });
  }

  async open(rules: GateRules): Promise<GateHandle> {
    const gate = ++this.#last;
    const port = (await this.#ask({ call: 'open', gate, rules })) as number;
    return {
      port,
      setPage: async (page, load) => void (await this.#ask({ call: 'page', gate, page, load })),
      takeRefusals: async () => (await this.#ask({ call: 'refusals', gate })) as GateRefusal[],
      close: async () => void (await this.#ask({ call: 'close', gate })),
    };
  }

  /** Ends all gates; what was recorded is then in its file. */
  async close(): Promise<void> {
    await this.#ask({ call: 'finish' }).catch(() => undefined);
    await this.#worker.terminate();
  }

  #ask(call: GateCall): Promise<unknown> {
    const id = ++this.#last;
    this.#worker.ref();
    return new Promise((resolve, reject) => {
      this.#waiting.set(id, { resolve, reject });
      this.#worker.postMessage({ id, ...call });
    });
  }
}
