import type { Seats } from './seats.js';

/** So many loads of one snippet go on side by side. */
export const MOST_LANES = 4;

/** Work of one snippet that goes on side by side: one piece always, more while there are seats for them. */
export class Lanes {
  readonly #seats: Seats;
  readonly #most: number;
  #running = new Set<Promise<void>>();
  /** Seats that were taken besides the snippet's own. */
  #extra = 0;
  #faults: unknown[] = [];

  constructor(seats: Seats, most: number) {
    this.#seats = seats;
    this.#most = most;
  }

  /** Until one more may begin. */
  async enter(): Promise<void> {
    while (!this.#mayEnter()) await Promise.race(this.#running);
  }

  #mayEnter(): boolean {
    const { size } = this.#running;
    if (size === 0) return true;
    if (size >= this.#most || !this.#seats.trySit()) return false;
    this.#extra++;
    return true;
  }

  add(work: Promise<unknown>): void {
    const done: Promise<void> = work
      .catch((error: unknown) => void this.#faults.push(error))
      .then(() => {
        this.#running.delete(done);
        if (this.#extra === 0) return;
        this.#extra--;
        this.#seats.rise();
      });
    this.#running.add(done);
  }

  /** Until all is done. Never throws. */
  async end(): Promise<void> {
    while (this.#running.size > 0) await Promise.all(this.#running);
  }

  /** @throws what the first of them threw */
  async finish(): Promise<void> {
    await this.end();
    if (this.#faults.length > 0) throw this.#faults[0];
  }
}
