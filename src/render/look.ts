import type { TimedFact } from '../core/evidence.js';
import { joinTraits } from '../core/markup/traits.js';
import { UNWATCHED, watchFlashes, type Watched } from './flashes.js';
import { CONDITIONS } from '../core/render.js';
import {
  isStill,
  readAll,
  readStill,
  waitFor,
  type Reading,
  type ReadingWish,
} from './collect/read.js';
import { clickSteps, QUIET, rest, type ReadingTraits } from './collect/rest.js';
import { readAllStored } from './collect/stored.js';
import type { Budget } from './bounds/budget.js';
import type { Job } from './life/job.js';
import { within, type Limits } from './bounds/limit.js';
import { loadPage } from './load-page.js';
import type { BrowserPage, Hottest } from './page/browser-page.js';
import type { Sources } from './page/served-page.js';
import type { Setting } from './setting.js';
import { readStood } from './standing.js';

/** What was seen of a page while it was watched. */
export interface Looked {
  /** Its code had to be stopped: where it spent its time. */
  stopped: { hottest: Hottest } | null;
  stillMoving: string[];
  reading: Reading | null;
  /** Why not all was waited for: the time for the snippet was over; null where it was. */
  cut: string | null;
  /** What its code did in loads that were timed, of each snippet; left out: in none. */
  timed?: TimedFact[][][];
  /** What was seen of whether it flashes; left out: it was not watched. */
  watched?: Watched;
}

/** So long a first visit is, once nothing is asked for any more, ms. */
const SHORT = 2000;
/** How often the time to hang is given to a page without code of its own. */
const PATIENCE = 3;

/** Loads, lets settle and reads, with a hand on the pulse. */
export async function look(
  page: BrowserPage,
  sources: Pick<Sources, 'address' | 'published'>,
  setting: Setting,
  job: Job,
): Promise<Looked> {
  const { limits, budget, around } = setting;
  // What has no code cannot run on without end: it is slow, and a busy machine slower.
  const runs = joinTraits(job.subject.traits).changes || around.hostChanges;
  const heart = page.watchHeart(runs ? limits.hang : PATIENCE * limits.hang);
  const looked: Looked = { stopped: null, stillMoving: [], reading: null, cut: null };
  const wish = { slots: job.render.snippets.map(({ slot }) => slot), wants: job.wants };
  try {
    const work = reach(page, sources, setting, job, looked)
      .then(() => readOn(page, wish, setting, job, looked))
      .then(() => 'done' as const);
    const looking = Promise.race([work, heart.hung]);
    const first = await budget.within(looking).catch((error: unknown) => {
      if (!page.happened.left) throw error;
    });
    if (first === null) return { ...looked, ...(await cutShort(page, wish, budget)) };
    // On a busy machine it takes longer to know that it hangs than is waited for its answer.
    const isSilent = first !== 'hung' && looked.reading === null && !page.happened.left;
    const outcome = isSilent ? await heart.decide() : first;
    if (outcome === 'hung') {
      looked.stopped = { hottest: await page.contain(job.profile) };
      looked.reading = await readWithin(page, wish, CALM, limits);
    }
    const { onlooker } = setting.terms;
    // A load that is made for its picture stands as that before it.
    if (looked.reading && job.render.variant === 'as-is' && job.shots !== 'taken')
      onlooker?.tell(job.render, await readStood(page));
    return page.happened.left ? { ...looked, reading: null } : looked;
  } finally {
    heart.stop();
  }
}

/** Loads the page, where it has to be. */
async function reach(
  page: BrowserPage,
  { address, published }: Pick<Sources, 'address' | 'published'>,
  { reach, limits }: Setting,
  { render, careful }: Job,
  looked: Looked,
): Promise<void> {
  if (reach.by === 'resize') return;
  const load = () => loadPage(page, { address }, { reach, limits });
  if (render.viewport.visit > 1) {
    await load();
    await endVisit(page, limits);
  }
  if ((await load()) === null) looked.stillMoving.push('the load');
  if (published) await page.read('markWhole', render.snippets[0]!.slot);
  if (careful) await page.read('takeCare');
}

/** A visitor who leaves again: what was stored stays, but for what belongs to the tab. Its time is the machine's: another page is loaded. */
async function endVisit(page: BrowserPage, { settle }: Limits): Promise<void> {
  await within(page.requests.whenIdle(), settle);
  const wish = { limit: SHORT, quiet: QUIET, media: false, first: false } as const;
  await within(page.read('settle', wish), settle);
  await within(page.read('forgetTab'), settle);
}

/** Lets it come to rest, and reads it. */
async function readOn(
  page: BrowserPage,
  wish: ReadingWish,
  { reach, limits, terms, around }: Setting,
  { subject, scripted, render, watched }: Job,
  looked: Looked,
): Promise<void> {
  if (!scripted) {
    looked.reading = await readWithin(page, wish, CALM, limits);
    return;
  }
  // Where a host is silent its files do not come: nobody waits for them, or misses them.
  const { drilled = false } = CONDITIONS[render.variant];
  const joined = joinTraits(subject.traits);
  const traits = drilled ? { ...joined, scrolls: false, media: false } : joined;
  const loaded = reach.by === 'load';
  if (loaded && around.points) await within(page.hand.point(), limits.hang).catch(() => null);
  const watching = watched && loaded ? watchStart(page, looked) : null;
  if (terms.steps.length === 0 && !drilled && isStill(traits)) {
    await watching;
    looked.reading = await readStill(page, wish, traits, limits, loaded);
    if (looked.reading) return;
  }
  // What had not come by the end of the load will hardly come now.
  const given = drilled || looked.stillMoving.length > 0 ? giveUp(limits) : limits;
  const moving = await rest(page, traits, given, loaded, watching);
  await watching;
  looked.stillMoving.push(...moving.filter((what) => !drilled || !FILES.has(what)));
  // What comes of the visitor's steps nobody stores unasked.
  const asksBefore = loaded && terms.steps.length > 0 && wish.wants.has('stored');
  const before = asksBefore ? await readAllStored(page, true) : null;
  if (loaded) await clickSteps(page, terms.steps, limits);
  const reading = await readWithin(page, wish, traits, given);
  looked.reading = reading && asksBefore ? { ...reading, stored: before } : reading;
}

/** Goes on beside what is waited for: where the page is gone, that is told by others. */
async function watchStart(page: BrowserPage, looked: Looked): Promise<void> {
  try {
    looked.watched = await watchFlashes(page);
    await page.screen.rest();
  } catch {
    looked.watched ??= UNWATCHED;
  }
}

/** What a page waits for that are files alone. */
const FILES = new Set(['fonts', 'pictures', 'media', 'films']);

/** How long a page may take to come to rest that did not load in time, ms. */
const GIVEN_UP = 1500;

function giveUp(limits: Limits): Limits {
  return { ...limits, settle: Math.min(limits.settle, GIVEN_UP) };
}

/** How long a page may take to be read as it stands when the time is over, ms. */
const LAST_LOOK = 3000;

/** The page as it stands when there is no more time for it. */
async function cutShort(
  page: BrowserPage,
  wish: ReadingWish,
  { words }: Budget,
): Promise<Pick<Looked, 'reading' | 'cut'>> {
  const reading = readAll(page, wish, CALM, NO_TIME).catch(() => null);
  return { reading: await within(reading, LAST_LOOK), cut: words };
}

const NO_TIME: Limits = { load: 0, settle: 0, hang: 0 };

/** A page whose code was stopped, or never began: nothing in it changes by itself any more. */
const CALM = { changes: false, live: false, scrolls: false, media: false };

function readWithin(
  page: BrowserPage,
  wish: ReadingWish,
  traits: ReadingTraits,
  limits: Limits,
): Promise<Reading | null> {
  return waitFor(page, readAll(page, wish, traits, limits), limits);
}
