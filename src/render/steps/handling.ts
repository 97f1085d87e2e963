import type { ElementFact, Facts, FrameFact, MediaFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { FRAMES } from '../../core/standards/elements.js';
import { askOf, type Asking } from '../bounds/asked.js';
import { Breakdown } from '../bounds/breakdown.js';
import type { Hands } from '../life/job.js';
import { inTime } from '../bounds/limit.js';
import type { BrowserPage } from '../page/browser-page.js';
import { defineStep } from './step.js';

/** What keys and fingers do. */
export const handlingStep = defineStep({
  name: 'handling',
  phase: 'used by hands',
  kind: 'handling',
  timesItself: true,
  // Nobody can get out of a whole page.
  isDue: ({ job, setting }) => job.render.variant === 'as-is' && !setting.around.published,
  take: ({ page, job, setting, own, facts }, asked) => {
    const { slot, elements, frames, media } = facts;
    const { height: windowHeight } = setting.around.window;
    const live = own.changes;
    const handled = { slot: slot.name, elements, frames, media, windowHeight, live };
    return tryHandling(page, handled, job.hands, asked);
  },
  tells: (_facts, handling) => ({ handling }),
});

/** A page with the snippet's own elements, which keys and fingers are tried on. */
export interface Handled {
  slot: string;
  elements: readonly ElementFact[];
  frames: readonly FrameFact[];
  media: readonly MediaFact[];
  /** px. */
  windowHeight: number;
  /** The snippet has code. */
  live: boolean;
}

/** So often the time for one answer may be needed for all of them. */
const WHOLE = 3;
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

/**
 * Tries what keys and fingers do.
 * @param asked `ms` is the longest that the page may take for an answer, and `gaps` takes what was not tried
 */
export async function tryHandling(
  page: BrowserPage,
  handled: Handled,
  hands: Hands,
  asked: Asking,
): Promise<Facts['handling']> {
  const { live, frames } = handled;
  if (!hands.keys && !hands.swipes) return NOTHING;
  if (frames.length > MOST_FRAMES) {
    asked.gaps.push({ kind: 'handling', why: 'more frames than are tried', seen: null, kept: 1 });
    return NOTHING;
  }
  const within = { ...asked, ms: WHOLE * asked.ms };
  const patient = getPatient(page, asked.ms);
  const ask = <T>(trying: Promise<T>, otherwise: T) =>
    askOf('handling', trying, { ...within, otherwise });
  const listening = live ? await ask(patient.listListeners(), []) : [];
  // Without code of its own or in frames nothing takes keys.
  const keyed = frames.length > 0 || listening.some(({ type }) => KEYS.test(type));
  const touched = listening.some(({ type, passive }) => !passive && TOUCHES.test(type));
  const trying = hands.keys && keyed;
  const trapped = trying ? await ask(findTrap(patient, handled), null) : null;
  const caught = hands.swipes ? await ask(findCaught(patient, handled, touched), []) : [];
  // A link may be what stops a film: it is stopped only once.
  const films = live && hands.keys ? await ask(tryFilms(patient, handled), NO_FILMS) : NO_FILMS;
  const links = live && hands.keys ? await ask(findLinks(patient, handled), []) : [];
  return { trapped, caught, links, ...films };
}

type Films = Pick<Facts['handling'], 'stopped' | 'started'>;

const NO_FILMS: Films = { stopped: [], started: [] };
const NOTHING: Facts['handling'] = { trapped: null, caught: [], links: [], ...NO_FILMS };

/** The page and its hand, as long as each answer comes in time: a busy machine needs long for many of them. */
type Patient = Pick<BrowserPage, 'read' | 'readFrames'> &
  Omit<BrowserPage['hand'], 'point' | 'wheel' | 'click'>;

/** What is asked by clicking. */
const CLICKS: ReadonlySet<string> = new Set(['clickLinks', 'clickFilms']);

function getPatient(page: BrowserPage, ms: number): Patient {
  const late = () => new Breakdown('the page does not answer');
  const { hand } = page;
  return {
    read(...asked) {
      page.happened.handled ||= CLICKS.has(asked[0]);
      return inTime(page.read(...asked), ms, late);
    },
    readFrames: (...asked) => page.readFrames(...asked),
    listListeners: () => inTime(hand.listListeners(), ms, late),
    press(key, shift) {
      page.happened.handled = true;
      return inTime(hand.press(key, shift), ms, late);
    },
    swipe(way, meanwhile) {
      page.happened.handled = true;
      return inTime(hand.swipe(way, meanwhile), ms, late);
    },
  };
}

async function findTrap(
  page: Patient,
  { slot, elements }: Handled,
): Promise<Facts['handling']['trapped']> {
  const own = elements.map(({ id }) => id);
  const walk = async (shift: boolean, most: number) => {
    let last: number | null = null;
    for (let presses = 1; presses <= most; presses++) {
      await page.press('Tab', shift);
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
    await page.press('Escape', false);
    if ((await walk(false, most)) === null) return null;
    const element = elements.find(({ id }) => id === last);
    if (!element) return null;
    const { tag, from, selector } = element;
    return { tag, from, selector, presses: 3 * most };
  } finally {
    await page.read('leaveSlot');
  }
}

/** Where code may keep a link from being followed, only a click tells. */
async function findLinks(
  page: Patient,
  { elements }: Handled,
): Promise<Facts['handling']['links']> {
  const all = elements.filter(({ tag, exposed }) => tag === 'a' && exposed);
  if (all.length === 0) return [];
  const ids = all.map(({ id }) => id);
  const clicked = await page.read('clickLinks', ids);
  return flatMap(clicked, ({ id, jumps }) => {
    const element = all.find((one) => one.id === id);
    if (!element) return [];
    const { tag, from, selector } = element;
    return [{ tag, from, selector, jumps }];
  });
}

/** Where there is code only a click tells what stops a film that runs, and what starts one that rests. */
async function tryFilms(page: Patient, { elements, media }: Handled): Promise<Films> {
  const films = media.filter(
    ({ tag, started, shown, controls }) => tag === 'video' && (started || shown) && !controls,
  );
  if (films.length === 0) return NO_FILMS;
  const own = elements.filter(({ exposed }) => exposed).map(({ id }) => id);
  const ids = films.map(({ id }) => id);
  const { stopped, started } = await page.read('clickFilms', ids, own);
  const tell = (found: readonly number[]) =>
    films
      .filter(({ id }) => found.includes(id))
      .map(({ tag, from, selector }) => ({ tag, from, selector }));
  return { stopped: tell(stopped), started: tell(started) };
}

/** How far a finger goes, px. */
const WAY = 160;
const LEAST = 8;
/** The longest that the documents in frames may take to be scrolled to their end, ms. */
const SCROLLED = 500;

async function findCaught(
  page: Patient,
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

/** For so many frames the page is waited for after a swipe: what does not move at once is swiped again, with patience. */
const PATIENCE = [2, 60] as const;

/** Whether a swipe begun on an element moves the page, up or down; where there is nowhere to go nothing is said. */
async function movesPage(page: Patient, element: ElementFact): Promise<boolean> {
  for (const frames of PATIENCE) {
    if (FRAMES.has(element.tag)) await page.readFrames('scrollToEnd', SCROLLED);
    const ways = await trySwipes(page, element, frames);
    if (ways.length === 0 || ways.includes(true)) return true;
  }
  return false;
}

/** Up, then down, until one moves the page: whether each did that there is room for. */
async function trySwipes(page: Patient, { id }: ElementFact, frames: number): Promise<boolean[]> {
  const moved: boolean[] = [];
  for (const way of [-WAY, WAY]) {
    const { x, y, above, below } = await page.read('bringForSwipe', id);
    if ((way > 0 ? above : below) < LEAST) continue;
    const from = y - way / 2;
    const read = () => page.read('readScroll', above, LEAST, frames);
    const now = await page.swipe({ x, from, to: from + way }, read);
    moved.push(Math.abs(now - above) >= LEAST);
    if (moved.at(-1)) break;
  }
  return moved;
}
