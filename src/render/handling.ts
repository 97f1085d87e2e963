import type { ElementFact, Facts, FrameFact } from '../core/evidence.js';
import { FRAMES } from '../core/standards/elements.js';
import { within } from './limit.js';
import type { BrowserPage } from './page/browser-page.js';

/** What is tried in a render. */
export interface Hands {
  keys: boolean;
  swipes: boolean;
}

/** A page with the snippet's own elements, which keys and fingers are tried on. */
export interface Handled {
  slot: string;
  elements: readonly ElementFact[];
  frames: readonly FrameFact[];
  /** px. */
  windowHeight: number;
  /** The snippet has code. */
  live: boolean;
}

const LIMIT = 2500;
/** A page with more frames than this is not tried: each key and each finger would take too long. */
const MOST_FRAMES = 40;
/** Events by which code can take keys and the focus, and swipes. */
const KEYS = /^(key(down|up|press)|focus(in|out)?|blur)$/;
const TOUCHES = /^(touch(start|move)|pointerdown)$/;
/** What is lower can be swiped past: a part of the window's height. */
const LOWEST = 0.25;
/** So often Tab is pressed at most. */
const MOST = 60;
/** From the last that can have the focus, so often. */
const FROM_LAST = 12;

/** Tries what keys and fingers do. Nothing may be read afterwards: the page has been used. */
export async function tryHandling(
  page: BrowserPage,
  handled: Handled,
  hands: Hands,
): Promise<Tried> {
  const { live, frames } = handled;
  if (!hands.keys && !hands.swipes) return { ...NOTHING, why: null };
  if (frames.length > MOST_FRAMES) return { ...NOTHING, why: 'more frames than are tried' };
  const asking = live ? page.hand.listListeners().catch(() => []) : null;
  const listening = (asking && (await within(asking, LIMIT))) ?? [];
  // Without code of its own or in frames nothing takes keys.
  const keyed = frames.length > 0 || listening.some(({ type }) => KEYS.test(type));
  const touched = listening.some(({ type, passive }) => !passive && TOUCHES.test(type));
  const trap = hands.keys && keyed ? await inTime(findTrap(page, handled)) : { found: null };
  const caught = hands.swipes ? await inTime(findCaught(page, handled, touched)) : { found: [] };
  const why = trap && caught ? null : 'the page did not answer to keys or fingers in time';
  return { trapped: trap?.found ?? null, caught: caught?.found ?? [], why };
}

/** What was tried, and why not all of it. */
type Tried = Facts['handling'] & { why: string | null };

const NOTHING: Facts['handling'] = { trapped: null, caught: [] };

/** null where it took too long, or the page is gone. */
function inTime<T>(trying: Promise<T>): Promise<{ found: T } | null> {
  return within(
    trying.then((found) => ({ found })),
    LIMIT,
  ).catch(() => null);
}

async function findTrap(
  page: BrowserPage,
  { slot, elements }: Handled,
): Promise<Facts['handling']['trapped']> {
  const own = elements.map(({ id }) => id);
  const walk = async (shift: boolean, most: number) => {
    let last: number | null = null;
    for (let presses = 1; presses <= most; presses++) {
      await page.hand.press('Tab', shift);
      const now = await page.read('readFocus', slot, own);
      // Code may bring it back as soon as it is out.
      const { id, inside } = now.inside ? now : await page.read('readFocusLater', slot, own);
      if (!inside) return null;
      last = id;
    }
    return last;
  };
  try {
    const count = await page.read('enterSlot', slot, false);
    const most = Math.min(2 * count + 10, MOST);
    let last = await walk(false, most);
    if (last !== null && count > most) {
      await page.read('enterSlot', slot, true);
      last = await walk(false, FROM_LAST);
    }
    if (last === null || (await walk(true, most)) === null) return null;
    // What is closed by Escape is no trap.
    await page.hand.press('Escape', false);
    if ((await walk(false, most)) === null) return null;
    const element = elements.find(({ id }) => id === last);
    if (!element) return null;
    const { tag, from, selector } = element;
    return { tag, from, selector, presses: 3 * most };
  } finally {
    await page.read('leaveSlot');
  }
}

/** How far a finger goes, px. */
const WAY = 160;
const LEAST = 8;

async function findCaught(
  page: BrowserPage,
  { elements, windowHeight }: Handled,
  touched: boolean,
): Promise<Facts['handling']['caught']> {
  const lowest = windowHeight * LOWEST;
  const shown = elements.filter((one) => one.shown && one.box.height >= lowest);
  if (shown.length === 0) return [];
  const ids = shown.map(({ id }) => id);
  const places = await page.read('listSwipePlaces', ids, touched);
  const found: Facts['handling']['caught'] = [];
  for (const { id, fills } of places) {
    const element = shown.find((one) => one.id === id)!;
    const caught = fills || !(await movesPage(page, element));
    const { tag, from, selector, box } = element;
    if (caught) found.push({ tag, from, selector, box, how: fills ? 'scrolls' : 'taken' });
  }
  if (places.length > 0) await page.read('scrollBack');
  return found;
}

/** Whether a swipe begun on an element moves the page, up or down. */
async function movesPage(page: BrowserPage, { id, tag }: ElementFact): Promise<boolean> {
  if (FRAMES.has(tag)) await page.readFrames('scrollToEnd', 500);
  let could = false;
  for (const way of [-WAY, WAY]) {
    const { x, y, above, below } = await page.read('bringForSwipe', id);
    // There has to be somewhere to go.
    if ((way > 0 ? above : below) < LEAST) continue;
    could = true;
    const from = y - way / 2;
    const now = await page.hand.swipe({ x, from, to: from + way }, () => page.read('readScroll'));
    if (Math.abs(now - above) >= LEAST) return true;
  }
  return !could;
}
