import { within } from '../bounds/limit.js';
import type { Pulse } from '../page/browser-page.js';

/** How often a page is asked whether it still answers, ms. */
const BEAT = 400;
/** How often an answer may fail while the page talks all the same, or has not had the processor. */
const MOST_DEAF = 4;
/** The share of the time to answer after which it is looked who has the processor. */
const EARLY = 0.2;
/** As much of its time must code have had the processor that is said to run on. */
const BUSY = 0.7;

/** What is asked of a page's heart. */
export interface Heart {
  ended: boolean;
  /** What it tells is still on its way. */
  talks: boolean;
  /** It opens one dialog after the other: while one is open it answers nobody. */
  insists: boolean;
  answers(ms: number): Promise<boolean>;
  /** The processor's time that each process which may be the page's has had so far, s. */
  getWork(): Promise<ReadonlyMap<number, number> | null>;
}

/** Asks the page again and again; `ms`: how long its code may have the processor without an answer. */
export function watchHeart(get: () => Heart, ms: number): Pulse {
  let stopped = false;
  let wake: NodeJS.Timeout | undefined;
  const waiting: ((state: 'answers') => void)[] = [];
  const silence = new Silence(ms);
  const hung = new Promise<'hung'>((resolve) => {
    const beat = async () => {
      const state = get().ended ? 'answers' : await silence.feel(get);
      if (stopped) return;
      if (state === 'hangs' && !get().ended) return resolve('hung');
      if (state === 'answers') for (const tell of waiting.splice(0)) tell(state);
      wake = setTimeout(() => void beat(), BEAT);
    };
    wake = setTimeout(() => void beat(), BEAT);
  });
  const stop = () => {
    stopped = true;
    clearTimeout(wake);
    for (const tell of waiting.splice(0)) tell('answers');
  };
  const answers = () => new Promise<'answers'>((resolve) => waiting.push(resolve));
  return { hung, decide: () => Promise.race([hung, answers()]), stop };
}

/** How long a page has been silent, and what its code did meanwhile. */
class Silence {
  readonly #ms: number;
  #deaf = 0;
  /** The processor's time that each process had had when it began; null where that is not known. */
  #before: ReadonlyMap<number, number> | null = null;

  constructor(ms: number) {
    this.#ms = ms;
  }

  async feel(get: () => Heart): Promise<'answers' | 'waits' | 'hangs'> {
    const heart = get();
    const asking = heart.answers(this.#ms);
    if (this.#deaf === 0) {
      if (await within(asking, EARLY * this.#ms)) return 'answers';
      if (get().insists) return 'hangs';
      this.#before = await heart.getWork();
    }
    if (await asking) {
      this.#deaf = 0;
      return 'answers';
    }
    this.#deaf++;
    const worked = await this.#getWorked(heart);
    // What a page logs without measure comes before its answer, and what stands in line for the
    // processor of a busy machine cannot answer: that is no hang yet.
    const waits = worked < (BUSY * (1 - EARLY) * this.#ms) / 1000 || get().talks;
    return waits && this.#deaf < MOST_DEAF ? 'waits' : 'hangs';
  }

  /** The most that any of the processes had of the processor since it began, s; 0 where that is not known. */
  async #getWorked(heart: Heart): Promise<number> {
    const now = await heart.getWork();
    if (!now || !this.#before) return 0;
    const before = this.#before;
    return Math.max(0, ...[...now].map(([process, time]) => time - (before.get(process) ?? 0)));
  }
}
