import { formatBytes } from '../../core/measure/units.js';
import type { Refusal } from '../../core/evidence.js';

/** More than a page may load in all, bytes on the wire: what has no end is ended there. */
export const MOST_BYTES = 100_000_000;

/** Counts what comes in during one load. */
export class Meter {
  #most: number;
  #counted = 0;

  constructor(most: number) {
    this.#most = most;
  }

  /** A new load begins. */
  reset(): void {
    this.#counted = 0;
  }

  /** Why no more is let through; null where there is room for these bytes. */
  count(bytes: number): Refusal | null {
    this.#counted += bytes;
    if (this.#counted <= this.#most) return null;
    const words = `the page loads more than ${formatBytes(this.#most)}: loading was ended there`;
    return { kind: 'too-much', words };
  }
}
