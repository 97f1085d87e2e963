import { Worker } from 'node:worker_threads';
import { Breakdown } from '../bounds/breakdown.js';
import type { GateCall, GateData } from './worker.js';

/** What passes through is soon forgotten: room for much of it at once is room taken for good. */
const LITTLE = { maxYoungGenerationSizeMb: 6 };

/** One that was begun before anybody needed it. */
let waiting: Thread | null = null;

/** Begins the next run's: to read its program takes as long as to read that of the main thread. It keeps no process alive. */
export function beginThread(): void {
  waiting ??= new Thread();
}

/** Ends it where nobody took it: left to itself it would keep the process from ending. */
export async function endThread(): Promise<void> {
  await waiting?.stop();
  waiting = null;
}

/** A thread for a run. */
export function takeThread(data: GateData): Thread {
  const thread = waiting?.broken === false ? waiting : new Thread();
  waiting = null;
  void thread.ask({ call: 'begin', data }).catch(() => undefined);
  return thread;
}

/** The thread in which the gates of a run are, asked by messages. */
export class Thread {
  #worker: Worker;
  #waiting = new Map<
    number,
    { resolve: (result: unknown) => void; reject: (error: Error) => void }
  >();
  #last = 0;
  #ended: Promise<void>;
  broken = false;

  constructor() {
    const file = new URL('./worker.js', import.meta.url);
    this.#worker = new Worker(file, { resourceLimits: LITTLE });
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

  /** At once, whatever it is at. */
  async stop(): Promise<void> {
    await this.#worker.terminate();
  }

  /** Nobody will answer any more. */
  #giveUp(): void {
    this.broken = true;
    for (const { reject } of this.#waiting.values()) reject(new Breakdown(GONE));
    this.#waiting.clear();
  }
}

const GONE = 'the thread of the gates is gone';
