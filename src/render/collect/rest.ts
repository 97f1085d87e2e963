import type { House } from '../../core/house/house.js';
import type { Traits } from '../../core/markup/traits.js';
import { timed, type Stopwatch } from '../bounds/awake.js';
import { within, withinTalk, type Limits } from '../bounds/limit.js';
import { patiently } from '../bounds/patience.js';
import { DUE, type SettleWish } from '../in-page/settle.js';
import type { BrowserPage } from '../page/browser-page.js';

/** What of a snippet decides how its page is read. */
export type ReadingTraits = Pick<Traits, 'changes' | 'live' | 'scrolls' | 'media'>;

/** How long a page with code of its own must have been still to count as at rest, ms. */
export const QUIET = 120;
/** Where something is due, time is moved on by so much until it is done, and by so much at most, ms. */
const [HASTE, MOST_HASTENED] = [1000, 10_000];
/** So long the page has to come to rest once no more is waited for what its servers let wait, ms. */
const AFTER_HOLD = 1000;

/**
 * Lets the page come to rest: by events of page and network, within the limit.
 * @param loaded it has only just loaded
 * @param watching that goes on as long as its time goes by itself; null: nothing
 */
export function rest(
  page: BrowserPage,
  traits: ReadingTraits,
  limits: Limits,
  loaded = false,
  watching: Promise<unknown> | null = null,
): Promise<string[]> {
  return timed((watch) => restWithin(watch, page, { traits, limits, loaded, watching }));
}

/** What a page comes to rest with. */
interface Resting {
  traits: ReadingTraits;
  limits: Limits;
  loaded: boolean;
  watching: Promise<unknown> | null;
}

async function restWithin(
  watch: Stopwatch,
  page: BrowserPage,
  { traits, limits, loaded, watching }: Resting,
): Promise<string[]> {
  let end = limits.settle;
  let moving: string[] = [];
  // The page itself is the first.
  const asking = loaded && traits.live && page.requests.requests.length > 1;
  if (asking) end += await awaitNetwork(page, limits.settle);
  const begun = asking ? 'asking' : loaded && 'loaded';
  let hastened = 0;
  let asked = 0;
  // What comes of what it asks for, link by link, belongs to its load.
  const goesOn = () =>
    loaded && traits.live && hastened === 0 && page.requests.lastActivity > asked;
  for (let first: SettleWish['first'] = begun; ; first = goesOn() && 'asking') {
    asked = performance.now();
    const left = Math.max(end - watch.ms, 50);
    const wish = { limit: left, quiet: traits.changes ? QUIET : 0, media: traits.media, first };
    const settling = page.read('settle', wish);
    moving = (await withinTalk(page, settling, left + 500, patiently)) ?? ['the page'];
    const waits = moving.includes(DUE) && hastened < MOST_HASTENED;
    moving = moving.filter((what) => what !== DUE);
    if (watch.ms >= end) break;
    if (waits) {
      await watching;
      hastened += HASTE;
      await page.pass(HASTE, left, 'flows');
      continue;
    }
    const quietFor = performance.now() - page.requests.lastActivity;
    if (page.requests.pending > 0) end += await awaitNetwork(page, end - watch.ms);
    else if (!traits.live || (quietFor >= QUIET && !goesOn())) return moving;
    else await page.requests.whenStill(QUIET);
  }
  const asksOn = traits.live && performance.now() - page.requests.lastActivity < QUIET;
  return page.requests.pending > 0 || asksOn ? [...moving, 'the network'] : moving;
}

/**
 * Waits until nothing is under way, `ms` at most, and no longer for what servers let wait.
 * @returns how much longer the page may take to come to rest, ms
 */
export async function awaitNetwork(
  { requests }: Pick<BrowserPage, 'requests'>,
  ms: number,
): Promise<number> {
  const isIdle = await within(
    requests.whenIdle().then(() => true),
    Math.max(ms, 0),
  );
  // What was asked for only now is given its time.
  if (isIdle) return 0;
  requests.hold();
  return requests.pending === 0 ? AFTER_HOLD : 0;
}

/** What a visitor does first, such as to close a notice: each step where there is something to click. */
export async function clickSteps(
  page: BrowserPage,
  steps: House['steps'],
  limits: Limits,
): Promise<void> {
  for (const { click } of steps) {
    page.requests.act();
    if (await page.read('clickOn', click)) await rest(page, AT_WORK, limits);
  }
}

/** Whatever a click, or an answer, may have begun. */
export const AT_WORK = { changes: true, live: true, scrolls: false, media: false };
