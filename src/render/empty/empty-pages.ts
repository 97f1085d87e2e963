import type {
  Box,
  Evidence,
  FactKind,
  Facts,
  PaintFact,
  Shot,
  SlotFact,
  VisitFact,
} from '../../core/evidence.js';
import { getEmpty, type Render } from '../../core/render.js';
import { Breakdown } from '../bounds/breakdown.js';
import { makeAlive } from '../life/attempt.js';
import type { Hands, Job } from '../life/job.js';
import type { Booth, Booths } from '../life/booths.js';
import type { Rendered } from '../stage.js';

/** How pages without snippets are looked at. */
export interface EmptyMaking {
  booths: Pick<Booths, 'enter'>;
  makeJob(empty: Render): Job;
  /** @throws Error where it takes longer than any render may */
  render(booth: Booth, job: Job): Promise<Rendered>;
  /** How a booth is left in which the page stood. */
  leaves: 'clean' | 'used';
  /** Renders of one key have the same page without the snippet. */
  getKey(empty: Render): string;
}

/** What is asked of pages without snippets besides baselines, each once a run. */
export class EmptyPages {
  #making: EmptyMaking;
  #slots = new Map<string, Promise<SlotFact>>();
  #shots = new Map<string, Promise<Shot | null>>();
  #visits = new Map<string, Promise<VisitFact>>();
  #paints = new Map<string, Promise<PaintFact>>();

  constructor(making: EmptyMaking) {
    this.#making = making;
  }

  /** A slot with nothing in it. */
  measureSlot(render: Render): Promise<SlotFact> {
    const key = JSON.stringify([render.snippets, render.viewport]);
    const empty = getEmpty({ ...render, insert: 'inline' });
    return remember(this.#slots, key, async () => (await this.#look(empty)).evidence[0]!.slot);
  }

  /** A piece of the page; null where it could not be taken. */
  shoot(render: Render, region: Box): Promise<Shot | null> {
    const empty = getEmpty(render);
    const key = `${this.#making.getKey(empty)} ${JSON.stringify(region)}`;
    return remember(this.#shots, key, async () => {
      const wish = { shots: 'taken', region } as const;
      const rendered = await this.#look(empty, wish).catch(() => null);
      return rendered?.shots[0]?.shot ?? null;
    });
  }

  /** What a visitor can do with it. @throws Error where that could not be tried */
  visit(render: Render, hands: Hands): Promise<VisitFact> {
    return this.#askFor(this.#visits, 'visit', { render, hands, time: 1 });
  }

  /** What is painted of it at rest. @param time which of several loads: not all are alike @throws Error where no picture could be taken */
  paint(render: Render, time: number): Promise<PaintFact> {
    const atRest: Render = { ...render, variant: 'as-is', after: null, scrolled: null };
    const hands = { keys: true, swipes: false };
    return this.#askFor(this.#paints, 'paint', { render: atRest, hands, time });
  }

  /** A kind of fact that is found out by a load of its own. */
  #askFor<K extends FactKind>(known: Known<Facts[K]>, kind: K, asked: Asked): Promise<Facts[K]> {
    const { render, hands, time } = asked;
    const empty = getEmpty(render);
    const key = `${this.#making.getKey(empty)} ${JSON.stringify([hands, time])}`;
    const wants: ReadonlySet<FactKind> = new Set([kind]);
    return remember(known, key, async () => {
      const [one] = (await this.#look(empty, { hands, wants })).evidence as [Evidence];
      if (one.gaps.some((gap) => gap.kind === kind)) throw new Breakdown('it was not tried');
      return one[kind] as Facts[K];
    });
  }

  async #look(empty: Render, wish: Partial<Job> = {}): Promise<Rendered> {
    const { booths, makeJob, render, leaves } = this.#making;
    const job: Job = { ...makeJob(empty), ...wish };
    // Others hold a booth until this is known.
    return makeAlive(booths, (booth) => render(booth, job), leaves);
  }
}

type Known<T> = Map<string, Promise<T>>;

/** Which page is asked, and how. */
interface Asked {
  render: Render;
  hands: Hands;
  time: number;
}

function remember<T>(known: Known<T>, key: string, find: () => Promise<T>) {
  const found = known.get(key) ?? find();
  known.set(key, found);
  // What failed once may well be had by whoever asks next.
  found.catch(() => known.delete(key));
  return found;
}
