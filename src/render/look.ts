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
import type { Budget } from './budget.js';
import { within, withinTalk, type Limits } from './limit.js';
import type { BrowserPage, Hottest } from './page/browser-page.js';
import type { ServedPage, Sources } from './page/served-page.js';
import type { StageOptions } from './stage.js';

/** What was seen of a page while it was watched. */
export interface Seen {
  /** Its code had to be stopped: where it spent its time. */
  stopped: { hottest: Hottest } | null;
  stillMoving: string[];
  reading: Reading | null;
  /** Why not all was waited for: the time for the snippet was over; null where it was. */
  cut: string | null;
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
  const { limits, budget, profile, scripted, careful } = options;
  const traits = joinTraits(options.traits);
  // What has no code cannot run on without end: it is slow, and a busy machine slower.
  const runs = traits.changes || options.hostChanges;
  const heart = page.watchHeart(runs ? limits.hang : PATIENCE * limits.hang);
  const seen: Seen = { stopped: null, stillMoving: [], reading: null, cut: null };
  const loaded = !options.shown?.resizable;
  const slots = render.snippets.map(({ slot }) => slot);
  const work = async () => {
    if (loaded) {
      if ((await page.load(address, limits.load)) === null) seen.stillMoving.push('the load');
      for (const { slot, text, how, scripts } of served.late)
        await page.putIn({ slot, text, how, scripts });
      if (published) await page.read('markWhole', slots[0]!);
      if (careful) await page.read('takeCare');
    }
    if (!scripted) {
      seen.reading = await readWithin(page, slots, CALM, limits);
      return;
    }
    if (loaded && options.points) await within(page.hand.point(), limits.hang).catch(() => null);
    if (options.steps.length === 0)
      seen.reading = await readStill(page, slots, traits, limits, loaded);
    if (seen.reading) return;
    seen.stillMoving.push(...(await rest(page, traits, limits, loaded)));
    if (loaded) await takeSteps(page, options.steps, limits);
    seen.reading = await readWithin(page, slots, traits, limits);
  };
  try {
    const looking = Promise.race([work().then(() => 'done' as const), heart.hung]);
    const first = await budget.within(looking).catch((error: unknown) => {
      if (!page.happened.left) throw error;
    });
    if (first === null) return { ...seen, ...(await cutShort(page, slots, budget)) };
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

/** How long a page may take to be read as it stands when the time is over, ms. */
const LAST_LOOK = 3000;

/** The page as it stands when there is no more time for it. */
async function cutShort(
  page: BrowserPage,
  slots: readonly string[],
  { words }: Budget,
): Promise<Pick<Seen, 'reading' | 'cut'>> {
  const reading = readAll(page, slots, CALM, NO_TIME).catch(() => null);
  return { reading: await within(reading, LAST_LOOK), cut: words };
}

const NO_TIME: Limits = { load: 0, settle: 0, hang: 0 };

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
