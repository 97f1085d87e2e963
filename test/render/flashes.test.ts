import { describe, expect, test } from '@jest/globals';
import { PNG } from 'pngjs';
import { RED } from '../../src/core/measure/flashing.js';
import { collectFlashing } from '../../src/facts/flashing/collect.js';
import { FlashWatch } from '../../src/render/flash-watch.js';
import { watchFlashes } from '../../src/render/flashes.js';
import { readLights } from '../../src/render/lights.js';
import type { BrowserPage } from '../../src/render/page/browser-page.js';
import type { ShownFrame } from '../../src/render/page/page-screen.js';
import { makeLiving } from '../support/living.js';

const [ACROSS, DOWN] = [40, 25];

function paint(colour: readonly [number, number, number]): Buffer {
  const png = new PNG({ width: ACROSS, height: DOWN });
  for (let i = 0; i < ACROSS * DOWN; i++) png.data.set([...colour, 255], i * 4);
  return PNG.sync.write(png);
}

const [DARK, LIGHT] = [paint([0, 0, 0]), paint([255, 255, 255])];

function show(at: number, png: Buffer, top = 0): ShownFrame {
  return { at, late: 9, png, width: 640, zoom: 1, left: 0, top };
}

interface Showing {
  /** What is shown in each stretch of frames; none: nothing is painted. */
  stretches: ShownFrame[][];
  /** The longest time between two frames, ms. */
  longest?: number;
  /** Frames that are painted in each little step of time. */
  little?: number;
}

/** A page whose frames come as told. */
function makePage({ stretches, longest = 17, little = 0 }: Showing) {
  const passed: [ms: number, then: string][] = [];
  let kept: ShownFrame[] = [];
  const left = [...stretches];
  const screen = {
    count: 0,
    watch: () => Promise.resolve(),
    take: () => kept.splice(0),
    whenShown: () => new Promise<true>(() => undefined),
    rest: () => Promise.resolve(),
  };
  const page = {
    screen,
    read: (name: string) => {
      if (name === 'findSlotEdges') return Promise.resolve({ top: 700, bottom: 1500 });
      const shown = left.shift() ?? [];
      kept = [...kept, ...shown];
      screen.count += shown.length;
      return Promise.resolve(longest);
    },
    pass: (ms: number, _limit: number, then: string) => {
      passed.push([ms, then]);
      if (then === 'stands' && ms > 1) screen.count += little;
      return Promise.resolve({ busy: false, ahead: 0 });
    },
  };
  return { page: page as unknown as BrowserPage, screen, passed, left };
}

/** Ten changes in a second. */
const BLINKS = Array.from({ length: 14 }, (_, i) => show(i * 100, i % 2 === 0 ? DARK : LIGHT, 300));

describe('a page is watched', () => {
  test('until nothing is painted any more', async () => {
    const { page, left } = makePage({ stretches: [[show(0, LIGHT)], [], [show(9, DARK)]] });
    expect(await watchFlashes(page)).toEqual({ flash: null, moved: false, unseen: null });
    expect(left).toHaveLength(1);
  });

  test('what flashed till then is told where it is on the page', async () => {
    const { page } = makePage({ stretches: [BLINKS, []] });
    const { flash } = await watchFlashes(page);
    expect(flash).toMatchObject({ count: 5, box: { x: 0, y: 300, width: 640, height: 400 } });
  });

  test('but not while it is scrolled', async () => {
    const scrolled = BLINKS.map((frame, i) => ({ ...frame, top: i }));
    expect((await watchFlashes(makePage({ stretches: [scrolled, []] }).page)).flash).toBeNull();
  });

  const uneven = (stretches: ShownFrame[][]) =>
    watchFlashes(makePage({ stretches, longest: 61 }).page);

  test('what went back and forth in frames too far apart, and ended meanwhile, is not known', async () => {
    const on = Array.from({ length: 21 }, (_, i) => [show(i * 400, i % 2 === 0 ? DARK : LIGHT)]);
    // What loads comes in pieces.
    expect((await uneven(on.slice(0, 4))).unseen).toBeNull();
    expect((await uneven(on.slice(0, 5))).unseen).toMatch(/not shown often enough/);
    expect((await uneven(on.slice(0, 7))).unseen).toMatch(/not shown often enough/);
    expect((await uneven(on)).unseen).toMatch(/not shown often enough/);
  });

  test('nor what went back and forth in frames that came late', async () => {
    const late = BLINKS.slice(0, 6).map((one) => [{ ...one, late: 130 }]);
    expect((await watchFlashes(makePage({ stretches: late }).page)).unseen).not.toBeNull();
    const soon = BLINKS.slice(0, 6).map((one) => [{ ...one, late: 110 }]);
    expect((await watchFlashes(makePage({ stretches: soon }).page)).unseen).toBeNull();
  });

  test('what only came in is', async () => {
    const comes = [show(0, LIGHT), ...Array.from({ length: 6 }, (_, i) => show(i * 99, DARK))];
    const { moved, unseen } = await uneven(comes.map((one) => [one]));
    expect([moved, unseen]).toEqual([true, null]);
  });

  test('what moves, and in which nothing large goes back and forth, is not watched for long', async () => {
    const moves = Array.from({ length: 9 }, (_, i) => [show(i * 99, LIGHT)]);
    const { page, left } = makePage({ stretches: moves });
    expect(await watchFlashes(page)).toMatchObject({ moved: true, flash: null });
    expect(left).toHaveLength(6);
  });

  test('where frames do not come it is not known', async () => {
    const { page } = makePage({ stretches: [] });
    const mute = { ...page, read: () => Promise.reject(new Error('gone')) };
    expect((await watchFlashes(mute)).unseen).toMatch(/not shown often enough/);
  });
});

describe('within the first minute', () => {
  const begin = async (showing: Showing, moved = false) => {
    const { page, screen, passed } = makePage(showing);
    const watches = { window: { width: 640, height: 400 }, slot: 'column', moved };
    const watch = (await FlashWatch.begin({ ...makeLiving(page, () => undefined), watches }))!;
    return { watch, screen, passed };
  };

  test('nothing is tried while nothing is painted, or what was painted all along', async () => {
    const { watch, screen, passed } = await begin({ stretches: [BLINKS, []], little: 1 });
    expect([await watch.look(false, 9), passed]).toEqual([null, []]);
    screen.count++;
    expect((await watch.look(false, 9))?.flash).toMatchObject({ count: 5 });
    const moving = await begin({ stretches: [BLINKS, []], little: 1 }, true);
    moving.screen.count++;
    expect(await moving.watch.look(false, 9)).toBeNull();
    expect((await moving.watch.look(true, 9))?.flash).toMatchObject({ count: 5 });
  });

  test('one change is looked into, and its time stands again afterwards', async () => {
    const once = await begin({ stretches: [BLINKS] });
    once.screen.count++;
    expect(await once.watch.look(false, 9)).toBeNull();
    expect(once.passed.every(([, then]) => then === 'stands')).toBe(true);
    const on = await begin({ stretches: [[]], little: 1 });
    on.screen.count++;
    expect(await on.watch.look(false, 9)).toBeNull();
    expect(on.passed.slice(-2)).toEqual([
      [1, 'flows'],
      [1, 'stands'],
    ]);
  });

  test('what is painted now and then is not tried for ever', async () => {
    const { watch, screen, passed } = await begin({ stretches: [] });
    for (let i = 0; i < 9; i++) {
      screen.count++;
      expect(await watch.look(false, 9)).toBeNull();
    }
    expect(passed).toHaveLength(15);
  });

  test('no more than twice, nor once it is known', async () => {
    const { watch } = await begin({ stretches: [[], [], BLINKS], little: 1 });
    for (let i = 0; i < 3; i++) expect(await watch.look(true, 9)).toBeNull();
    const found = await begin({ stretches: [BLINKS, [], BLINKS, []], little: 1 });
    expect((await found.watch.look(true, 9))?.flash).not.toBeNull();
    expect(await found.watch.look(true, 9)).toBeNull();
  });

  test('on the way down where the slot is, as far as it is not seen at the top', async () => {
    const at = async (scrolled: number) => {
      const { watch } = await begin({ stretches: [BLINKS, []], little: 1 });
      return (await watch.lookDown(scrolled, 9)) !== null;
    };
    expect([await at(200), await at(400), await at(1400), await at(1600)]).toEqual([
      ...[false, true, true, false],
    ]);
  });

  test('nobody asks', async () => {
    const living = makeLiving(makePage({ stretches: [] }).page, () => undefined);
    expect(await FlashWatch.begin(living)).toBeNull();
  });
});

test('how light pixels are, and how red', () => {
  const read = (...colour: [number, number, number]) => {
    const { light, red } = readLights(paint(colour));
    return [Math.round(light[0]! * 100) / 100, red[0]];
  };
  expect(read(255, 255, 255)).toEqual([1, RED.not]);
  expect(read(255, 0, 0)).toEqual([0.21, RED.saturated]);
  expect(read(255, 130, 60)).toEqual([0.38, RED.nearly]);
  expect(read(255, 180, 0)[1]).toBe(RED.not);
  // What is nearly black has no colour.
  expect(read(9, 0, 0)).toEqual([0, RED.not]);
});

describe('what flashes is held', () => {
  const box = { x: 0, y: 0, width: 300, height: 200 };
  const flash = { box, area: 60_000, count: 5, red: false, at: 0 };
  const element = (offset: number, width: number, shown = true) => ({
    ...{ from: { offset }, selector: null, shown },
    box: { ...box, width },
  });
  const collect = (elements: unknown[], flashingAlone: unknown[] = []) =>
    collectFlashing({ flash, flashingAlone, parted: { elements } } as never, {} as never);

  test('by the smallest of the snippet’s elements that holds most of it, the innermost of these', () => {
    const [one] = collect([element(0, 900), element(7, 250), element(9, 250), element(11, 200)]);
    expect(one).toMatchObject({ from: { offset: 9 }, box: { width: 250 } });
    expect(collect([element(0, 300, false)])[0]).toMatchObject({ from: null, box });
  });

  test('by the page, where that flashes without the snippet too', () => {
    expect(collect([], [{ ...box, width: 290 }])).toEqual([]);
    expect(collect([], [{ ...box, width: 90 }])).toHaveLength(1);
    expect(collect([element(3, 300)], [box])).toHaveLength(1);
  });
});
