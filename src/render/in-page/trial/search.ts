import { flatMap } from '../../../core/lists.js';
import type { Change } from '../../../core/trial/change.js';
import { Before, type TrialHarm } from './harm.js';
import type { Gauge } from './measure.js';
import {
  listChanged,
  TOLERANCE,
  withChanges,
  withinScene,
  withRoom,
  type TrialScene,
} from './scene.js';

/** A thing to try against one target: several changes together. */
export type Remedy = readonly Change[];

const MOST_ROUNDS = 5;
/** What lessens it by less than this is no help, px. */
const LEAST_HELP = 2;
/** A slot so wide that hardly anything is too wide for it, px. */
const PLENTY = 3000;

/** What of the remedies together makes a target fit, as their places in the list; null where nothing does. */
export function seekCure(
  scene: TrialScene & { remedies: readonly Remedy[]; apart: readonly (readonly string[])[] },
): number[] | null {
  return withinScene(scene, (gauges, clock, slot) =>
    new CureSearch(scene, gauges, slot, clock).run(),
  );
}

/** Puts remedies together, the one that helps most first, until nothing sticks out. */
class CureSearch {
  readonly #remedies: readonly Remedy[];
  /** What each of them sets: two that set the same do not go together. */
  readonly #apart: readonly (readonly string[])[];
  readonly #picture: Before;
  /** What cures, but changes something where there is room enough. */
  #second: number[] | null = null;

  constructor(
    { remedies, apart }: { remedies: readonly Remedy[]; apart: readonly (readonly string[])[] },
    private readonly gauges: readonly Gauge[],
    private readonly slot: Element,
    private readonly isOver: () => boolean,
  ) {
    this.#remedies = remedies;
    this.#apart = apart;
    this.#picture = new Before(slot);
  }

  run(): number[] | null {
    const chosen: number[] = [];
    let left = this.#read();
    for (let round = 0; round < MOST_ROUNDS; round++) {
      const best = this.#findBest(chosen, left);
      if (!best || this.isOver()) break;
      chosen.push(best.index);
      if (best.left <= TOLERANCE) return this.#prune(chosen);
      left = best.left;
    }
    return this.#second && this.#prune(this.#second);
  }

  /** The first that cures; else the one that helps most. */
  #findBest(chosen: readonly number[], left: number): { index: number; left: number } | null {
    const taken = new Set(flatMap(chosen, (i) => this.#apart[i]!));
    let best: { index: number; left: number } | null = null;
    for (let index = 0; index < this.#remedies.length; index++) {
      if (this.isOver()) return null;
      if (this.#apart[index]!.some((one) => taken.has(one))) continue;
      const now = this.#measure([...chosen, index]);
      if (now === null) continue;
      if (now.left <= TOLERANCE) {
        if (now.harm !== null) continue;
        if (this.#isIdle([...chosen, index])) return { index, left: now.left };
        this.#second ??= [...chosen, index];
      } else if (left - now.left >= LEAST_HELP && now.left < (best?.left ?? Infinity) - TOLERANCE)
        best = { index, left: now.left };
    }
    return best;
  }

  #measure(chosen: readonly number[]): { left: number; harm: TrialHarm } | null {
    return withChanges(this.#list(chosen), () => {
      const left = this.#read();
      return { left, harm: left <= TOLERANCE ? this.#picture.compare(false, []) : null };
    });
  }

  /** Whether it does nothing at all where there is room enough. */
  #isIdle(chosen: readonly number[]): boolean {
    return withRoom(this.slot, PLENTY, () => {
      const picture = new Before(this.slot);
      const changes = this.#list(chosen);
      return withChanges(changes, () => picture.compare(true, listChanged(changes))) === null;
    });
  }

  #list(chosen: readonly number[]): Change[] {
    return flatMap(chosen, (i) => [...this.#remedies[i]!]);
  }

  /** The page and the slot are to fit: what is farther out counts. */
  #read(): number {
    return Math.max(...this.gauges.map((gauge) => gauge.read()));
  }

  /** Without what is not needed. */
  #prune(chosen: readonly number[]): number[] {
    let kept = [...chosen];
    for (const one of chosen.slice(0, -1)) {
      const without = kept.filter((i) => i !== one);
      const now = this.#measure(without);
      if (now && now.left <= TOLERANCE && now.harm === null) kept = without;
    }
    return kept;
  }
}
