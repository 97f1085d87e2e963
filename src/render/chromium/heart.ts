import { within } from '../limit.js';

/** How often a page is asked whether it still answers, ms. */
const BEAT = 400;
/** How often an answer may fail while the page talks all the same, or has not had the processor. */
const MOST_DEAF = 4;
/** The share of the time to answer after which it is looked who has the processor. */
const EARLY = 0.2;
/** The share of the time that code which runs on has the processor, if the machine has one to give. */
const BUSY = 0.7;

/** What is asked of a page's heart. */
export interface Heart {
  ended: boolean;
  /** What it tells is still on its way. */
  talks: boolean;
  answers(ms: number): Promise<boolean>;
  /** The processor's time that each process which may be the page's has had so far, s. */
  getWork(): Promise<ReadonlyMap<number, number> | null>;
}

/** Asks the page again and again; `hung` resolves when it has not answered for `ms`. */
export function watchHeart(get: () => Heart, ms: number): { hung: Promise<'hung'>; stop(): void } {
  let stopped = false;
  let deaf = 0;
  let wake: NodeJS.Timeout | undefined;
  const hung = new Promise<'hung'>((resolve) => {
    const beat = async () => {
      const state = get().ended ? 'answers' : await feel(get(), ms);
      if (stopped) return;
      deaf = state === 'answers' ? 0 : deaf + 1;
      // What a page logs without measure comes before its answer, and what stands in line for
      // the processor of a busy machine cannot answer: that is no hang yet.
      const waits = (state === 'starves' || get().talks) && deaf < MOST_DEAF;
      if (state === 'answers' || get().ended || waits) wake = setTimeout(() => void beat(), BEAT);
      else resolve('hung');
    };
    wake = setTimeout(() => void beat(), BEAT);
  });
  const stop = () => {
    stopped = true;
    clearTimeout(wake);
  };
  return { hung, stop };
}

/** Whether the page answers; if not, whether it had the processor for itself all the while. */
async function feel(heart: Heart, ms: number): Promise<'answers' | 'works' | 'starves'> {
  const asking = heart.answers(ms);
  const early = await within(asking, EARLY * ms);
  if (early) return 'answers';
  const before = await heart.getWork();
  const since = performance.now();
  if (await asking) return 'answers';
  const after = await heart.getWork();
  if (!before || !after) return 'starves';
  const worked = [...after].map(([process, time]) => time - (before.get(process) ?? 0));
  return Math.max(...worked) >= (BUSY * (performance.now() - since)) / 1000 ? 'works' : 'starves';
}
