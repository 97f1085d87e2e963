/** How many loads may go on at once in a run: each snippet that is rendered has one, and may take more that nobody else wants. */
export class Seats {
  #free: number;

  constructor(all: number) {
    this.#free = all;
  }

  /** For a snippet; where all are taken it has to stand. */
  sit(): void {
    this.#free--;
  }

  /** One more for whoever has one; false where none is free. */
  trySit(): boolean {
    if (this.#free <= 0) return false;
    this.#free--;
    return true;
  }

  rise(): void {
    this.#free++;
  }
}

/** Nothing is done side by side. */
export const NO_SEATS = new Seats(0);
