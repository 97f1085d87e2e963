import type { Act, VisitFact } from '../../core/evidence.js';
import type { Way } from '../../facts/visit/fact.js';
import type { OwnPlace } from '../in-page/visit.js';
import type { Hands } from '../life/job.js';
import type { BrowserPage } from '../page/browser-page.js';
import { couldDo, isAsIs, isOneOfKind } from './once.js';
import { defineStep } from './step.js';

/** What a visitor can do with the page around. */
export const visitStep = defineStep({
  name: 'visit',
  phase: 'used by hands',
  kind: 'visit',
  patience: 3,
  isDue: (scene) => isAsIs(scene) && isOneOfKind(scene) && couldDo(scene, HINDERING),
  take: ({ page, job }) => tryVisit(page, job.hands),
  tells: (_facts, visit) => ({ visit }),
});

/** What of a style could keep a page from being scrolled or used. */
const HINDERING = /overflow|overscroll|position|touch-action|user-select|pointer-events|scroll-/i;

/** How far a wheel, a finger or keys go, and what counts as having gone, px. */
const WAY = 120;
const LEAST = 8;
/** So long is waited for it, frames. */
const PATIENCE = 30;
/** Where code leads elsewhere it does so within so many frames, in which no page goes so far, px. */
const SOON = 10;
const NEVER = 1e9;
/** A page has come to stand that does not move for so many frames. */
const STILL = 4;
const MOST_TRIES = 10;
const KEY_EVENTS = /^key(down|up|press)$/;
const CLICK_EVENTS = /^(click|auxclick|mouse(down|up)|pointer(down|up))$/;

/** Tries what a visitor does with the page around. */
export async function tryVisit(page: BrowserPage, hands: Hands): Promise<VisitFact> {
  const tried: Way[] = [];
  const stuck: Way[] = [];
  const note = (way: Way, goes: boolean) => {
    tried.push(way);
    if (!goes) stuck.push(way);
  };
  const place = await page.read('findOwnPlace');
  const listening = await page.hand.listListeners();
  const hindered = hands.keys ? await page.read('listHindered') : [];
  const scrolls = place.below >= LEAST;
  page.happened.glides = scrolls;
  if (scrolls && hands.keys)
    note('wheel', await moves(page, place, () => page.hand.wheel(place, WAY)));
  if (scrolls && hands.swipes) note('swipe', await swipes(page, place));
  // Without code that listens nothing takes keys.
  if (hands.keys && listening.some(({ type }) => KEY_EVENTS.test(type))) {
    page.happened.handled = true;
    if (scrolls)
      note('arrows', await moves(page, place, () => page.hand.press('ArrowDown', false)));
    if (scrolls) note('space', await moves(page, place, () => page.hand.press('Space', false)));
    if (place.controls > 1) note('tab', await tabs(page));
  }
  await page.read('leaveFocus');
  await standAtTop(page);
  const clicks = hands.keys && listening.some(({ type }) => CLICK_EVENTS.test(type));
  const misled = clicks ? await tryClicks(page, place) : [];
  return { tried, stuck, hindered: [...hindered, ...misled] };
}

/** Whether a link still leads where it is to, and a click where there is nothing to click nowhere. */
async function tryClicks(page: BrowserPage, { x, y, above }: OwnPlace): Promise<Act[]> {
  const { happened } = page;
  happened.handled = true;
  /** What an act gives, and where it led. */
  const follow = async <T>(act: () => Promise<T>): Promise<[T, string[]]> => {
    const before = happened.led.length;
    const given = await act();
    // What is led away is so within some frames.
    await page.read('readScroll', above, NEVER, SOON);
    return [given, happened.led.slice(before)];
  };
  const [link, led] = await follow(() => page.read('clickOwnLink'));
  const [, away] = await follow(() => page.hand.click({ x, y }));
  const isMisled = link?.kept && !led.some((one) => link.href.startsWith(one));
  return [
    ...(isMisled ? (['follow'] as const) : []),
    ...(away.length > 0 ? (['click'] as const) : []),
  ];
}

async function moves(page: BrowserPage, { above }: OwnPlace, act: () => Promise<void>) {
  await standAtTop(page);
  // Where the page's time was moved on, a scroll by a key may stand until the next key is pressed.
  for (let tries = 0; tries < 2; tries++) {
    await act();
    if ((await page.read('readScroll', above, LEAST, PATIENCE)) - above >= LEAST) return true;
  }
  return false;
}

/** What a way has begun may go on for a while. */
async function standAtTop(page: BrowserPage): Promise<void> {
  for (let tries = 0; tries < MOST_TRIES; tries++) {
    await page.read('scrollBack');
    if ((await page.read('readScroll', 0, 1, STILL)) < 1) return;
  }
}

async function swipes(page: BrowserPage, { x, y, above }: OwnPlace): Promise<boolean> {
  // It glides on, frames after it stood still.
  page.happened.handled = true;
  const read = () => page.read('readScroll', above, LEAST, PATIENCE);
  const from = Math.max(y, WAY);
  return (await page.hand.swipe({ x, from, to: from - WAY }, read)) - above >= LEAST;
}

async function tabs(page: BrowserPage): Promise<boolean> {
  const first = await page.read('focusFirst');
  await page.hand.press('Tab', false);
  return page.read('hasLeft', first);
}
