import { Stopwatch } from './awake.js';
import { within } from './limit.js';

/** How long one snippet may take as a whole where nobody says otherwise, ms. */
export const USUAL_TIME = 60_000;
/** How it is said that the time was over. */
export const OVER = /that a snippet may take were over$/;

/**
 * The time that a snippet may take as a whole. What it spends is counted, and not what it waits for others: a
 * browser that is free, the page without it, a machine that is asleep.
 */
export class Budget {
  readonly ms: number;
  #watch = new Stopwatch();
  #working = 0;

  constructor(ms: number = USUAL_TIME) {
    this.ms = ms;
  }

  /** What is left of it, ms; never less than 0. */
  get left(): number {
    return Math.max(0, this.ms - this.#watch.ms);
  }

  get isOver(): boolean {
    return this.left === 0;
  }

  /** Why there is nothing more to be seen. */
  get words(): string {
    return `the ${this.ms / 1000} s that a snippet may take were over`;
  }

  /** Counts the time in which work is done: once, where several pieces are done side by side. */
  async spend<T>(work: () => Promise<T>): Promise<T> {
    if (this.#working++ === 0) this.#watch.start();
    try {
      return await work();
    } finally {
      if (--this.#working === 0) this.#watch.stop();
    }
  }

  /** What the promise gives; null where the budget is over before. */
  async within<T>(promise: Promise<T>): Promise<T | null> {
    return within(promise, this.left);
  }
}
