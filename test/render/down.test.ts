import { describe, expect, test } from '@jest/globals';
import { goDown } from '../../src/render/down.js';
import type { Instant } from '../../src/render/living.js';
import type { BrowserPage } from '../../src/render/page/browser-page.js';
import { Happenings } from '../../src/render/page/happenings.js';
import { makeLiving } from '../support/living.js';

/** What a page looks like, scrolled by so much, px: how much too wide it is, and all else. */
type Look = (top: number) => [tooWide: number, plain: string] | null;

interface Told {
  stops?: number[];
  covered?: object[];
  busyAt?: number;
  leavesAt?: number;
}

function makePage(look: Look, { stops = [400, 800, 1200], covered = [], ...told }: Told = {}) {
  const happened = new Happenings('https://www.seedlibrary.example/');
  const log: string[] = [];
  let at = 0;
  const answers: Record<string, (top: number) => unknown> = {
    listStops: () => stops,
    scrollTo: (top) => ((at = top), undefined),
    noteStop: () => at,
    listCoveredOnTheWay: () => covered,
    glance: () => {
      const seen = look(at);
      if (seen === null) throw new Error('no answer');
      return { tooWide: seen[0], plain: `${seen[1]} ${seen[0]}`, fine: String(at) };
    },
  };
  const page = {
    happened,
    requests: { requests: [], pending: 0 },
    read: (name: string, top: number) => {
      log.push(name);
      return Promise.resolve().then(() => answers[name]!(top));
    },
    readFrames: () => Promise.resolve([]),
    pass: () => {
      if (at === told.leavesAt) happened.left = true;
      return Promise.resolve({ busy: at === told.busyAt, ahead: 0 });
    },
  } as unknown as BrowserPage;
  const read: Instant[] = [];
  const living = makeLiving(page, (instant) => read.push(instant));
  return { living, read, log };
}

async function listRead(look: Look, told?: Told) {
  const { living, read, log } = makePage(look, told);
  const { unseen, moments } = await goDown(living, 60, null);
  expect(moments).toHaveLength(read.length);
  expect(read.every(({ after }) => after === 60)).toBe(true);
  return { unseen, log, at: read.map(({ down }) => down!.scrolled), read };
}

describe('on the way down', () => {
  test('a page that stays as it is is not read, nor one that cannot be scrolled', async () => {
    expect(await listRead(() => [0, 'so'])).toMatchObject({ unseen: null, at: [] });
    const { log, at } = await listRead(() => [0, 'so'], { stops: [] });
    expect([log, at]).toEqual([['listStops'], []]);
  });

  test('it is read where it is widest, and where it is otherwise last', async () => {
    const widths: Record<number, number> = { 400: 20, 800: 90, 1200: 40 };
    expect((await listRead((top) => [widths[top] ?? 0, 'so'])).at).toEqual([800, 1200]);
    expect((await listRead((top) => [top === 800 ? 90 : 0, 'so'])).at).toEqual([800]);
  });

  test('where nothing is too wide, first and last where they differ', async () => {
    expect((await listRead((top) => [0, top >= 800 ? 'veil' : 'so'])).at).toEqual([800]);
    expect((await listRead((top) => [0, top > 0 ? String(top) : 'so'])).at).toEqual([400, 1200]);
    // As wide at the top.
    expect((await listRead((top) => [5, top === 1200 ? 'veil' : 'so'])).at).toEqual([1200]);
  });

  test('what lies over something all the way is told where it was seen', async () => {
    const covered = [{ id: 7 }];
    const { read, at } = await listRead(() => [0, 'so'], { covered });
    expect(at).toEqual([1200]);
    expect(read[0]!.down!.covered).toEqual(covered);
  });

  test('a page without a snippet is read all the way', async () => {
    const { living, read } = makePage(() => [0, 'so']);
    await goDown({ ...living, empty: true }, 60, null);
    expect(read.map(({ down }) => down!.scrolled)).toEqual([400, 800, 1200]);
  });

  test('what does not answer, or is too busy, is a gap', async () => {
    const unseen = expect.stringContaining('on the way down');
    const silent = await listRead((top) => (top === 800 ? null : [0, 'so']));
    expect(silent).toMatchObject({ unseen, at: [] });
    expect(await listRead(() => [0, 'so'], { busyAt: 800 })).toMatchObject({ unseen, at: [] });
  });

  test('a page that is left there is told as it is', async () => {
    expect(await listRead(() => [0, 'so'], { leavesAt: 800 })).toMatchObject({
      unseen: null,
      at: [800],
    });
  });
});
