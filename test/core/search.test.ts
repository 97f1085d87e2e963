import { describe, expect, test } from '@jest/globals';
import type { ElementFact, Evidence, WidthSpan } from '../../src/core/evidence.js';
import { makeViewport } from '../../src/core/house/house.js';
import { getDefaultHouse } from '../../src/core/house/read.js';
import { describeSlot } from '../../src/core/judge/later.js';
import { getFitsFrom } from '../../src/core/judge/renders.js';
import { planRenders } from '../../src/core/plan.js';
import type { Viewport } from '../../src/core/render.js';
import { planBetween } from '../../src/core/search/between.js';
import { markUntold } from '../../src/core/search/untold.js';
import { planEdges, settleEdges } from '../../src/core/search/edges.js';
import { joinRanges, listRanges } from '../../src/core/search/ranges.js';
import { shareWindows } from '../../src/core/search/share.js';
import { formatWindows } from '../../src/core/words/list.js';
import { formatFits, formatSearched } from '../../src/formats/summary.js';
import { makeLost } from '../../src/render/bounds/lost.js';
import { makeSeen, makeSnippet } from '../support/document.js';

const ALL = { from: 280, to: 1920 };
const house = getDefaultHouse();
const view = (width: number, given: Partial<Viewport> = {}) =>
  makeViewport({ name: `${width}${given.scheme ?? ''}`, width, ...given });

describe('windows are shared out among viewports', () => {
  const share = (viewports: Viewport[], interval = ALL) =>
    [...shareWindows(viewports, interval)].map(([{ name }, shares]) => [
      name,
      ...shares.map(({ from, to }) => `${from}-${to}`),
    ]);

  test.each<[string, Viewport[], string[][]]>([
    ['one kind', [view(320), view(390)], [['390', '280-1920']]],
    [
      'phones and desktops',
      [view(1280), view(320), view(390), view(768)],
      [
        ['390', '280-579'],
        ['768', '580-1920'],
      ],
    ],
    [
      'a phone on its side',
      [view(320), view(768), view(844, { touch: true }), view(1280)],
      [
        ['844', '280-544', '807-1062'],
        ['1280', '545-806', '1063-1920'],
      ],
    ],
    [
      'two of one width',
      [view(800), view(800, { scheme: 'dark' })],
      [
        ['800', '280-800'],
        ['800dark', '801-1920'],
      ],
    ],
  ])('%s', (_, viewports, expected) => {
    expect(share(viewports)).toEqual(expected);
  });

  test('none beyond those that are searched', () => {
    expect(share([view(320), view(1280)], { from: 900, to: 1000 })).toEqual([['1280', '900-1000']]);
  });

  test('and to none where nothing is to be searched', () => {
    expect(planRenders('x', house, house).every(({ search }) => search.length === 0)).toBe(true);
  });
});

const BED = { from: { offset: 0 }, selector: null };
const ROW = { from: { offset: 40 }, selector: null };

const span = (from: number, to: number, given: Partial<WidthSpan> = {}): WidthSpan => ({
  ...{ for: 'page', element: BED, from, to, most: to - from, at: from, near: false },
  ...given,
});

/** Renders of a page in which a box is as wide as is said, its spans at the last of each kind. */
function look(
  box: (width: number) => number,
  widths: Partial<Evidence['widths']> = {},
): Evidence[] {
  return planRenders('x', house, { ...house, search: ALL }).map((render) => {
    const { search, viewport } = render;
    const made = seeAt(viewport.width, box, render);
    return search.length > 0
      ? { ...made, widths: { ...made.widths, searched: search, ...widths } }
      : made;
  });
}

function seeAt(width: number, box: (width: number) => number, render = renders[1]!): Evidence {
  const viewport = { ...render.viewport, width };
  const made = { ...makeLost({ ...render, viewport }, 0, ''), gaps: [] };
  const wide = box(width);
  const ink = { inkLeft: 16, inkRight: 16 + wide };
  const element = {
    ...{
      id: 1,
      parent: null,
      tag: 'div',
      ...BED,
      ...ink,
      shown: true,
      exposed: true,
      clipped: false,
    },
    box: { x: 16, y: 0, width: wide, height: 9 },
    style: { display: 'block', position: 'static', float: 'none', width: `${wide}px` },
  } as unknown as ElementFact;
  return {
    ...made,
    page: {
      ...made.page,
      atLoad: { scrollWidth: Math.max(width, 16 + wide), clientWidth: width, scrollable: true },
    },
    slot: { ...made.slot, box: { x: 16, y: 0, width: width - 32, height: 9 } },
    elements: [element],
  };
}

const renders = planRenders('x', house, house);

describe('what is too wide between the widths rendered', () => {
  const plan = (spans: WidthSpan[]) =>
    planBetween(look(() => 1, { spans })).map(({ viewport }) => [viewport.name, viewport.width]);

  test.each<[string, WidthSpan[], number[]]>([
    ['is rendered where it is widest', [span(500, 560, { at: 520 })], [520]],
    ['is not where it was rendered', [span(300, 330), span(500, 560)], []],
    ['is for each element', [span(300, 330), span(500, 560, { element: ROW })], [500]],
    ['is once for window and slot', [span(500, 540), span(500, 560, { for: 'slot' })], [500]],
    ['is beyond the widest rendered', [span(1500, 1920, { at: 1500 })], [1500]],
    ['is below the narrowest rendered', [span(280, 300, { at: 280 })], [280]],
    ['is for the slot alone too', [span(500, 560, { for: 'slot' })], [500]],
    [
      'is for a frame beside the slot',
      [span(500, 520, { for: 'frame' }), span(500, 560, { for: 'slot' })],
      [500],
    ],
  ])('%s', (_, spans, expected) => {
    const planned = plan(spans);
    // Both kinds of viewport were searched.
    expect(planned.map(([, width]) => width).slice(0, 1)).toEqual(expected);
    expect(planned.every(([name, width]) => name === String(width))).toBe(true);
  });

  test('is rendered in a few windows only', () => {
    const spans = [1, 2, 3, 4, 5, 6].map((i) =>
      span(400 + i * 20, 410 + i * 20, {
        element: { from: { offset: i }, selector: null },
        most: i,
      }),
    );
    expect(plan(spans).map(([, width]) => width)).toEqual([520, 500, 480, 460]);
  });
});

describe('what the search found and no render shows', () => {
  const untold = (all: Evidence[]) =>
    markUntold(all, new Map()).flatMap(({ gaps }) =>
      gaps.map(({ kind, why }) => `${kind}: ${why}`),
    );

  test('is a gap', () => {
    const all = look(() => 1, { spans: [span(1500, 1600)] });
    expect(untold(all)).toContain(
      'widths: more seems to be too wide in windows of 1500 to 1600 px than could be shown',
    );
    expect(untold(look(() => 1, { spans: [span(700, 700)] }))[0]).toContain('windows of 700 px');
  });

  test('is none where any render shows it: its finding has all the windows', () => {
    const wide = look(() => 3000, { spans: [span(280, 1920)] });
    expect(untold(wide)).toEqual([]);
    const phones = look((width) => (width < 700 ? 3000 : 1), { spans: [span(900, 1920)] });
    expect(untold(phones)).toEqual([]);
    // Something else is too wide there, at another width: that tells nothing of it.
    const other = { element: ROW };
    expect(
      untold(look((width) => (width < 700 ? 3000 : 1), { spans: [span(900, 1000, other)] })),
    ).not.toEqual([]);
    expect(
      untold(look((width) => (width < 700 ? 3000 : 1), { spans: [span(380, 400, other)] })),
    ).toEqual([]);
    // It was rendered in one of these windows, and nothing is too wide.
    expect(untold(look(() => 1, { spans: [span(280, 1920)] }))).not.toEqual([]);
  });
});

describe('the edges of what a copy only guesses', () => {
  const guess = (spans: WidthSpan[], box: (width: number) => number) => {
    const all = look(box, { spans, guessed: true });
    const one = all.find(({ render }) => render.viewport.width === 390)!;
    const around = { all, wide: [] };
    const loads: Evidence[] = [];
    const asked: number[][] = [];
    for (let next = planEdges(one, around); next.length > 0;) {
      asked.push(next);
      loads.push(...next.map((width) => seeAt(width, box)));
      next = planEdges(one, around, loads);
    }
    return { asked, widths: settleEdges(one, around, loads).widths };
  };
  const page = ({ spans }: Evidence['widths']) => spans.filter((one) => one.for === 'page');

  test('are loaded on both sides, and no more where it was right', () => {
    const { asked, widths } = guess([span(280, 414)], () => 400);
    expect(asked.flat()).toEqual([280, 414, 415]);
    expect(page(widths)).toEqual([span(280, 414, { most: 136 })]);
    expect(widths).toMatchObject({ guessed: false, tried: asked.flat().length });
  });

  test('are found by halving where it was wrong', () => {
    const { asked, widths } = guess([span(280, 500)], (width) => (width > 450 ? 300 : 440));
    expect(page(widths)).toMatchObject([{ from: 280, to: 450, near: false }]);
    expect(asked.flat().length).toBeLessThanOrEqual(12);
  });

  test('are near where loads did not find them', () => {
    const box = (width: number) => (width % 2 ? 700 : 100);
    const all = look((width) => (width === 390 ? 700 : 100), {
      spans: [span(280, 579)],
      guessed: true,
    });
    const one = all[1]!;
    const loads = [280, 383, 385, 450, 579].map((width) => seeAt(width, box));
    const { spans } = settleEdges(one, { all, wide: [] }, loads).widths;
    expect(spans.filter((found) => found.for === 'page')).toMatchObject([
      { from: 383, to: 390, near: true },
      { from: 579, to: 579, near: true },
    ]);
  });

  test('are looked for where a load shows what no window that was rendered does', () => {
    const box = (width: number) => (width >= 500 && width <= 560 ? 700 : 100);
    const { asked, widths } = guess([span(500, 560, { at: 540 })], box);
    expect(asked).toEqual([[540], [500, 560], [499, 561]]);
    expect(page(widths)).toMatchObject([{ from: 500, to: 560, near: false }]);
  });

  test('are not where it does not, and of few guesses', () => {
    const { asked, widths } = guess([span(500, 560, { at: 540 })], () => 100);
    expect(asked).toEqual([[540]]);
    expect(widths).toMatchObject({ spans: [], tried: 1 });
    const many = Array.from({ length: 9 }, (_, i) =>
      span(400 + i, 400 + i, { at: 400 + i, element: { from: { offset: i }, selector: null } }),
    );
    expect(guess(many, () => 100).asked).toEqual([[400, 401, 402]]);
  });

  test('are none where nothing is guessed to be too wide: the narrowest window is looked at', () => {
    const { asked, widths } = guess([], () => 100);
    expect([asked, widths.spans]).toEqual([[[280]], []]);
    const rooms = widths.rooms.map(({ from, fits }) => [from, fits]);
    expect(rooms).toContainEqual([248, true]);
  });

  test('are held against the page without the snippet', () => {
    const all = look(() => 400, { spans: [span(280, 414)], guessed: true });
    const wide = [{ from: 280, to: 579, scrollWidth: 500 }];
    const { spans } = settleEdges(all[1]!, { all, wide }, []).widths;
    expect(spans.map((one) => one.for)).not.toContain('page');
  });

  test('of what was tried itself stay as they are', () => {
    const [one] = look(() => 400, { spans: [span(280, 414)] });
    expect(settleEdges(one!, { all: [one!], wide: [] }, [])).toBe(one);
  });
});

test('ranges that touch are one, as exact as their edges', () => {
  const range = (from: number, to: number, near = false, most = 1) => ({ from, to, near, most });
  expect(joinRanges([range(600, 700), range(280, 400), range(401, 450, true, 9)])).toEqual([
    range(280, 450, true, 9),
    range(600, 700),
  ]);
  expect(joinRanges([range(280, 400, true), range(300, 350)])).toEqual([range(280, 400, true)]);
});

test('ranges are those of an element in its slot', () => {
  const views = look(() => 1, { spans: [span(280, 414), span(300, 310, { element: ROW })] });
  const at = { slot: 'column', insert: 'inline' };
  const list = (slot: string, element: typeof BED | null) =>
    listRanges(
      views.map((one) => ({ ...one, at: at as never })),
      { slot, insert: 'inline' },
      'page',
      element,
    ).map(({ from, to }) => `${from}-${to}`);
  expect(list('column', BED)).toEqual(['280-414']);
  expect(list('column', ROW)).toEqual(['300-310']);
  expect([list('side', BED), list('column', null)]).toEqual([[], []]);
});

test('a snippet fits from the narrowest slot that was tried, above all that it does not fit', () => {
  const rooms = [
    { from: 248, to: 399, fits: false },
    { from: 400, to: 680, fits: true },
  ];
  const from = (given: typeof rooms, fits: boolean | null = true) => {
    const evidence = look(() => 1, { rooms: given });
    return getFitsFrom(
      evidence,
      evidence.map(() => ({ width: 680, fits })),
    );
  };
  expect(from(rooms)).toBe(401);
  expect(
    from([
      { from: 248, to: 300, fits: false },
      { from: 280, to: 680, fits: true },
    ]),
  ).toBe(302);
  expect([from(rooms, null), from([{ from: 700, to: 700, fits: false }])]).toEqual([null, null]);
});

const range = (from: number, to: number, near = false) => ({ from, to, near });

test('windows are told as they were seen and searched', () => {
  const seen = [320, 390, 2000].map((width) => ({ width }) as never);
  expect(formatWindows({ seen })).toBe('at 320, 390 and 2000 px');
  expect(formatWindows({ seen, ranges: [range(280, 414), range(600, 600, true)] })).toBe(
    'at 280 to 414, about 600 and 2000 px',
  );
});

describe('the windows of several slots', () => {
  const seen = (slot: string, ...widths: number[]) =>
    widths.map((width) => makeSeen(slot, width, 0));
  const inSlot = (slot: string, from: number, to: number) => ({ ...range(from, to), slot });

  test.each<[Parameters<typeof formatWindows>[0], string]>([
    [{ seen: [...seen('article', 320), ...seen('sidebar', 320)] }, 'at 320 px'],
    [{ seen: [...seen('article', 320, 900), ...seen('sidebar', 900)] }, 'at 320 and 900 px'],
    [
      { seen: [...seen('article', 320), ...seen('sidebar', 900)] },
      'in “article” at 320 px, in “sidebar” at 900 px',
    ],
    [
      {
        seen: [...seen('article', 320), ...seen('sidebar', 900)],
        ranges: [inSlot('article', 280, 400), inSlot('sidebar', 880, 990)],
      },
      'in “article” at 280 to 400 px, in “sidebar” at 880 to 990 px',
    ],
    [
      {
        seen: seen('article', 320, 900),
        ranges: [inSlot('article', 280, 400), inSlot('sidebar', 280, 400)],
      },
      'in “article” at 280 to 400 and 900 px, in “sidebar” at 280 to 400 px',
    ],
    [{ seen: [], ranges: [inSlot('article', 280, 400)] }, 'at 280 to 400 px'],
    [{ seen: [] }, ''],
  ])('%j', (given, words) => {
    expect(formatWindows(given)).toBe(words);
  });

  test('one of several is named', () => {
    const say = (slots: string[], ...there: string[]) =>
      describeSlot({ seen: there.flatMap((slot) => seen(slot, 320)) }, new Set(slots));
    expect(say(['article', 'sidebar'], 'sidebar')).toBe(' It is so in “sidebar”.');
    expect(say(['article', 'sidebar'], 'article', 'sidebar')).toBe('');
    expect([say(['article'], 'article'), say(['article', 'sidebar'])]).toEqual(['', '']);
    const ranges = [inSlot('article', 280, 300)];
    expect(describeSlot({ seen: seen('sidebar', 900), ranges }, new Set(['a', 'b']))).toBe('');
  });

  test('are joined slot by slot', () => {
    const all = [inSlot('a', 280, 400), inSlot('b', 401, 500), inSlot('a', 390, 450)];
    expect(joinRanges(all).map(({ from, to, slot }) => [slot, from, to])).toEqual([
      ['a', 280, 450],
      ['b', 401, 500],
    ]);
  });
});

test('what was searched is said, and what was not', () => {
  const searched = { windows: [ALL], tried: 455, why: null };
  const say = (given: object) => formatSearched({ searched: { ...searched, ...given } });
  expect(say({})).toBe('Windows from 280 to 1920 px searched, 455 of them tried.');
  expect(say({ why: 'no' })).toMatch(/tried\. Between .* not everything was tried: no\.$/);
  expect(say({ windows: [], tried: 0, why: 'no' })).toMatch(/^Between .* nothing was tried: no\.$/);
  expect(say({ windows: [], tried: 0 })).toBe('');
  const { renders: seen } = makeSnippet();
  const half = seen.map((one, i) => ({ ...one, fits: i > 0, slotWidth: i > 0 ? 680 : 288 }));
  const fits = (given: object) =>
    formatFits({ renders: half, fitsFrom: 399, searched: { ...searched, ...given } });
  expect([fits({}), fits({ tried: 0 })]).toEqual(['fits from 399 px', 'fits 680, not 288']);
});
