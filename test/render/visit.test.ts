import { describe, expect, test } from '@jest/globals';
import type { Evidence, VisitFact } from '../../src/core/evidence.js';
import { getDefaultHouse } from '../../src/core/house/read.js';
import { planRenders } from '../../src/core/plan.js';
import { makeLost } from '../../src/render/bounds/lost.js';
import { compareAll, compareVisit } from '../../src/render/empty/compare.js';
import type { BrowserPage } from '../../src/render/page/browser-page.js';
import { Happenings } from '../../src/render/page/happenings.js';
import { tryVisit } from '../../src/render/steps/visit.js';

interface Told {
  below?: number;
  controls?: number;
  /** The ways that do nothing. */
  stuck?: string[];
  listens?: string[];
  /** What becomes of a click on the page's first link. */
  link?: { href: string; kept: boolean } | null;
  /** Where a click on a link leads, and one on words. */
  leads?: { link?: string; words?: string };
}

const KEYS = { keys: true, swipes: false };
const FINGER = { keys: false, swipes: true };

function makePage({
  below = 900,
  controls = 3,
  stuck = [],
  listens = ['keydown'],
  link = null,
  leads = {},
}: Told = {}) {
  const happened = new Happenings('');
  const lead = (address: string | undefined) => void (address && happened.openByClick(address));
  let top = 0;
  let focus = 1;
  const go = (way: string) => {
    if (!stuck.includes(way)) top += 40;
    return Promise.resolve();
  };
  const answers: Record<string, (...args: never[]) => unknown> = {
    findOwnPlace: () => ({ x: 10, y: 200, above: 0, below, controls }),
    listHindered: () => ['copy'],
    scrollBack: () => (top = 0),
    readScroll: () => top,
    focusFirst: () => focus,
    hasLeft: (id: number) => id !== focus,
    leaveFocus: () => undefined,
    clickOwnLink: () => (lead(leads.link), link),
  };
  const page = {
    happened,
    read: (name: string, ...args: never[]) => Promise.resolve(answers[name]!(...args)),
    hand: {
      listListeners: () => Promise.resolve(listens.map((type) => ({ type, passive: false }))),
      wheel: () => go('wheel'),
      click: () => Promise.resolve(lead(leads.words)),
      press: (key: string) => {
        if (key !== 'Tab') return go(key);
        if (!stuck.includes('Tab')) focus++;
        return Promise.resolve();
      },
      swipe: async (_way: unknown, meanwhile: () => Promise<unknown>) => {
        await go('swipe');
        return meanwhile();
      },
    },
  };
  return page as unknown as BrowserPage;
}

describe('a visit', () => {
  test('tries the ways that there are, each from the top', async () => {
    const easy = makePage();
    expect(await tryVisit(easy, KEYS)).toEqual({
      tried: ['wheel', 'arrows', 'space', 'tab'],
      stuck: [],
      hindered: ['copy'],
    });
    expect(easy.happened.handled).toBe(true);
    expect(await tryVisit(makePage(), FINGER)).toEqual({
      tried: ['swipe'],
      stuck: [],
      hindered: [],
    });
  });

  test.each([
    ['wheel', 'wheel'],
    ['ArrowDown', 'arrows'],
    ['Space', 'space'],
    ['Tab', 'tab'],
  ])('tells that %s does nothing', async (key, way) => {
    expect((await tryVisit(makePage({ stuck: [key] }), KEYS)).stuck).toEqual([way]);
  });

  test('and that a finger does not', async () => {
    expect((await tryVisit(makePage({ stuck: ['swipe'] }), FINGER)).stuck).toEqual(['swipe']);
  });

  test('tries no keys where nothing listens for them, and nothing where there is nowhere to go', async () => {
    const silent = makePage({ listens: ['scroll'] });
    expect((await tryVisit(silent, KEYS)).tried).toEqual(['wheel']);
    expect(silent.happened.handled).toBe(false);
    expect((await tryVisit(makePage({ below: 4 }), KEYS)).tried).toEqual(['tab']);
    expect((await tryVisit(makePage({ controls: 1 }), KEYS)).tried).not.toContain('tab');
  });
});

describe('clicks', () => {
  const HREF = 'https://www.seedlibrary.example/join';
  const listens = ['click'];
  const hindered = async (told: Told) =>
    (await tryVisit(makePage({ listens, ...told }), KEYS)).hindered.filter((act) => act !== 'copy');

  test.each<[string, Told, string[]]>([
    ['lead where they are to', { link: { href: HREF, kept: false } }, []],
    ['lead nowhere', { link: { href: HREF, kept: true } }, ['follow']],
    [
      'are led by code to where they are to',
      { link: { href: HREF, kept: true }, leads: { link: HREF } },
      [],
    ],
    [
      'are led elsewhere',
      { link: { href: HREF, kept: true }, leads: { link: 'https://elsewhere.example/' } },
      ['follow'],
    ],
    ['lead away where there is nothing to click', { leads: { words: HREF } }, ['click']],
    ['are not tried where nothing listens', { listens: ['scroll'], leads: { words: HREF } }, []],
  ])('%s', async (_, told, acts) => {
    expect(await hindered(told)).toEqual(acts);
  });
});

describe('held against the page alone', () => {
  const house = getDefaultHouse();
  const [render] = planRenders('x', house, house);
  const look = (visit: Partial<VisitFact>): Evidence => ({
    ...makeLost(render!, 0, ''),
    gaps: [],
    visit: { tried: ['wheel', 'tab'], stuck: [], hindered: [], ...visit },
  });
  const bad = look({ stuck: ['wheel', 'tab'], hindered: ['copy', 'menu'] });

  test('only what the snippet does remains', () => {
    const without: VisitFact = { tried: ['wheel'], stuck: ['wheel'], hindered: ['menu'] };
    const { visit, gaps } = compareVisit(bad, without);
    expect([visit.stuck, visit.hindered, gaps]).toEqual([['tab'], ['copy'], []]);
  });

  test('what could not be tried without it is a gap', () => {
    const { visit, gaps } = compareVisit(bad, null);
    expect([visit.stuck, visit.hindered]).toEqual([[], []]);
    expect(gaps.map(({ kind, why }) => [kind, why])).toEqual([
      ['visit', 'it could not be tried without the snippet'],
    ]);
  });

  test('that is asked only where something is the matter', async () => {
    const asked: string[] = [];
    const empty = {
      shoot: () => Promise.resolve(null),
      visit: () => (asked.push('visit'), Promise.reject(new Error('gone'))),
      paint: () => Promise.reject(new Error('gone')),
    };
    const [easy, stuck] = await compareAll([look({}), bad], empty, KEYS);
    expect([asked.length, easy!.gaps.length, stuck!.gaps.length]).toEqual([1, 0, 1]);
  });
});
