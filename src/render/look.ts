import { joinTraits } from '../core/markup/traits.js';
import type { Render } from '../core/render.js';
import {
  readAll,
  readStill,
  rest,
  takeSteps,
  type Reading,
  type ReadingTraits,
} from './collect/read.js';
import { withinTalk, type Limits } from './limit.js';
import type { BrowserPage, Hottest } from './page/browser-page.js';
import type { ServedPage, Sources } from './page/served-page.js';
import type { StageOptions } from './stage.js';

/** What was seen of a page while it was watched. */
export interface Seen {
  /** Its code had to be stopped: where it spent its time. */
  stopped: { hottest: Hottest } | null;
  stillMoving: string[];
  reading: Reading | null;
}

/** How often the time to hang is given to a page without code of its own. */
const PATIENCE = 3;

/** Loads, lets settle and reads, with a hand on the pulse. */
export async function look(
  page: BrowserPage,
  { address, served, published }: Pick<Sources, 'address' | 'published'> & { served: ServedPage },
  render: Render,
  options: StageOptions,
): Promise<Seen> {
  const { limits, profile, scripted } = options;
  const traits = joinTraits(options.traits);
  // What has no code cannot run on without end: it is slow, and a busy machine slower.
  const runs = traits.changes || options.hostChanges;
  const heart = page.watchHeart(runs ? limits.hang : PATIENCE * limits.hang);
  const seen: Seen = { stopped: null, stillMoving: [], reading: null };
  const loaded = !options.shown?.resizable;
  const slots = render.snippets.map(({ slot }) => slot);
  const work = async () => {
    if (loaded) {
      if ((await page.load(address, limits.load)) === null) seen.stillMoving.push('the load');
      for (const { slot, text, how, scripts } of served.late)
        await page.putIn({ slot, text, how, scripts });
      if (published) await page.read('markWhole', slots[0]!);
    }
    if (!scripted) {
      seen.reading = await readWithin(page, slots, CALM, limits);
      return;
    }
    if (options.steps.length === 0)
      seen.reading = await readStill(page, slots, traits, limits, loaded);
    if (seen.reading) return;
    seen.stillMoving.push(...(await rest(page, traits, limits, loaded)));
    if (loaded) await takeSteps(page, options.steps, limits);
    seen.reading = await readWithin(page, slots, traits, limits);
  };
  try {
    const first = await Promise.race([work(), heart.hung]).catch((error: unknown) => {
      if (!page.happened.left) throw error;
    });
    // On a busy machine it takes longer to know that it hangs than is waited for its answer.
    const isSilent = first !== 'hung' && seen.reading === null && !page.happened.left;
    const outcome = isSilent ? await heart.decide() : first;
    if (outcome === 'hung') {
      seen.stopped = { hottest: await page.contain(profile) };
      seen.reading = await readWithin(page, slots, CALM, limits);
    }
    return page.happened.left ? { ...seen, reading: null } : seen;
  } finally {
    heart.stop();
  }
}

/** A page whose code was stopped, or never began: nothing in it changes by itself any more. */
const CALM = { changes: false, live: false, scrolls: false, media: false };

async function readWithin(
  page: BrowserPage,
  slots: readonly string[],
  traits: ReadingTraits,
  limits: Limits,
): Promise<Reading | null> {
  const reading = readAll(page, slots, traits, limits).catch(() => null);
  return withinTalk(page, reading, limits.hang + 2 * limits.settle);
}
