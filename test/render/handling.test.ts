import { expect, test } from '@jest/globals';
import { Budget } from '../../src/render/bounds/budget.js';
import type { Gap } from '../../src/core/evidence.js';
import { askOf } from '../../src/render/bounds/asked.js';
import { tryHandling, type Handled } from '../../src/render/steps/handling.js';
import type { BrowserPage } from '../../src/render/page/browser-page.js';
import { Happenings } from '../../src/render/page/happenings.js';

const never = () => new Promise<never>(() => undefined);
const LATE: Gap = {
  kind: 'handling',
  why: 'the page did not answer in time',
  seen: null,
  kept: 1,
};
const NOTHING = { trapped: null, caught: [], links: [], stopped: [], started: [] };
const HANDLED: Handled = {
  slot: 'column',
  elements: [],
  frames: [],
  media: [],
  windowHeight: 800,
  live: true,
};

/** A page with a listener to keys, in which the focus stays. */
function makePage(hand: Partial<BrowserPage['hand']>, answers: Record<string, unknown> = {}) {
  const told: string[] = [];
  const given: Record<string, unknown> = {
    enterSlot: 1,
    readFocus: { id: 7, inside: true },
    readFocusLater: { id: 7, inside: true },
    leaveSlot: undefined,
    ...answers,
  };
  const page = {
    read: (name: string) => {
      told.push(name);
      return Promise.resolve(given[name]);
    },
    readFrames: () => Promise.resolve([]),
    happened: new Happenings(''),
    hand: {
      listListeners: () => Promise.resolve([{ type: 'keydown', passive: false }]),
      press: () => Promise.resolve(),
      swipe: never,
      ...hand,
    },
  };
  return { page: page as unknown as BrowserPage, told };
}

async function run(
  page: BrowserPage,
  handled: Partial<Handled> = {},
  hands = { keys: true, swipes: false },
) {
  const gaps: Gap[] = [];
  const found = await tryHandling(page, { ...HANDLED, ...handled }, hands, {
    ms: 40,
    budget: new Budget(),
    gaps,
  });
  return { found, gaps };
}

test('a page that does not answer to keys is not said to let them go', async () => {
  const { page, told } = makePage({ press: never });
  expect(await run(page)).toEqual({ found: NOTHING, gaps: [LATE] });
  expect(told).toContain('leaveSlot');
});

test('a page whose listeners are not told is not said to have none', async () => {
  const { page, told } = makePage({ listListeners: never });
  expect(await run(page)).toEqual({ found: NOTHING, gaps: [LATE] });
  expect(told).toEqual([]);
});

test('a page with very many frames is not tried, and that is said', async () => {
  const { page, told } = makePage({});
  const frames = Array.from({ length: 41 }, () => ({})) as unknown as Handled['frames'];
  const { gaps } = await run(page, { frames });
  expect(gaps).toMatchObject([{ kind: 'handling', why: 'more frames than are tried' }]);
  expect(told).toEqual([]);
});

test('who keeps the keys is named, with how often was tried', async () => {
  const element = { id: 7, tag: 'div', from: { offset: 3 }, selector: 'div' };
  const { page } = makePage({});
  const elements = [element] as unknown as Handled['elements'];
  const { found, gaps } = await run(page, { elements });
  expect(found.trapped).toEqual({ tag: 'div', from: { offset: 3 }, selector: 'div', presses: 36 });
  expect(page.happened.handled).toBe(true);
  expect(gaps).toEqual([]);
});

test('code that no key wakes is not tried', async () => {
  const listListeners = () => Promise.resolve([{ type: 'click', passive: false }]);
  const { page, told } = makePage({ listListeners });
  expect(await run(page)).toEqual({ found: NOTHING, gaps: [] });
  expect(told).toEqual([]);
});

test('what is late, or fails, is a gap of its kind; what comes is none', async () => {
  const gaps: Gap[] = [];
  const asked = { ms: 10, budget: new Budget(), otherwise: 'nothing', gaps };
  expect(await askOf('causes', Promise.resolve('found'), asked)).toBe('found');
  expect(gaps).toEqual([]);
  expect(await askOf('causes', never(), asked)).toBe('nothing');
  expect(await askOf('styles', Promise.reject(new Error('gone')), asked)).toBe('nothing');
  expect(gaps.map(({ kind }) => kind)).toEqual(['causes', 'styles']);
});

test('only films that run without controls are stopped by clicks, and only where there is code', async () => {
  const film = { id: 5, tag: 'video', from: { offset: 9 }, selector: null, started: true };
  const media = [
    { ...film, controls: false },
    { ...film, id: 6, controls: true },
  ] as unknown as Handled['media'];
  const listListeners = () => Promise.resolve([]);
  const live = makePage({ listListeners }, { clickFilms: { stopped: [5, 6], started: [] } });
  const { found } = await run(live.page, { media });
  expect(found.stopped).toEqual([{ tag: 'video', from: { offset: 9 }, selector: null }]);
  expect(live.page.happened.handled).toBe(true);
  const still = makePage({ listListeners });
  expect((await run(still.page, { media, live: false })).found).toEqual(NOTHING);
  expect(still.told).toEqual([]);
});
