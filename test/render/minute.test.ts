import { describe, expect, test } from '@jest/globals';
import { getDefaultHouse } from '../../src/core/house/read.js';
import { planRenders } from '../../src/core/plan.js';
import type { Render } from '../../src/core/render.js';
import { Budget } from '../../src/render/bounds/budget.js';
import { livesOn } from '../../src/render/life/job.js';
import { liveOn, waitOn } from '../../src/render/minute.js';
import type { BrowserPage } from '../../src/render/page/browser-page.js';
import { Happenings } from '../../src/render/page/happenings.js';
import { makeLiving } from '../support/living.js';

/** What a page looks like at each moment, s; null: it does not answer. */
type Course = (now: number) => string | null;

interface Told {
  fine?: Course;
  ahead?: number;
  busyFrom?: number;
  pending?: number;
  leavesAt?: number;
  hangs?: boolean;
}

function makePage(plain: Course, told: Told = {}) {
  const { fine = () => '', ahead = 0, busyFrom = Infinity } = told;
  const log: string[] = [];
  const happened = new Happenings('https://www.seedlibrary.example/');
  let now = 0;
  const page = {
    happened,
    requests: {
      ...{ requests: [], pending: told.pending ?? 0 },
      whenIdle: () => Promise.resolve(),
      hold: () => log.push('hold'),
    },
    read: (name: string) => {
      if (name === 'listStops') return Promise.resolve([]);
      const seen = plain(now);
      if (seen === null) return Promise.reject(new Error('no answer'));
      return Promise.resolve({ plain: seen, fine: fine(now) ?? '' });
    },
    readFrames: () => Promise.resolve([]),
    pass: (ms: number, _limit: number, then: string) => {
      now += ms / 1000;
      log.push(`${now} ${then}`);
      if (now >= (told.leavesAt ?? Infinity)) happened.left = true;
      return Promise.resolve({ busy: now >= busyFrom, ahead });
    },
    contain: () => (log.push('contain'), Promise.resolve(null)),
    watchHeart: () => ({
      hung: told.hangs ? Promise.resolve('hung') : new Promise(() => undefined),
      stop: () => log.push('stop'),
    }),
  } as unknown as BrowserPage;
  const read: number[] = [];
  const living = makeLiving(page, ({ after, stopped }) => {
    read.push(after);
    if (stopped) log.push('stopped');
  });
  return { living, read, log };
}

const STILL: Course = () => 'as it was';

describe('a minute', () => {
  test('in which nothing changes is not read, and is a minute', async () => {
    const { living, read, log } = makePage(STILL);
    expect(await liveOn(living)).toEqual({ moments: [], unseen: null });
    expect(read).toEqual([]);
    expect(log.at(-1)).toBe('60 stands');
  });

  test('is read when something comes, and at its end where that is otherwise again', async () => {
    const once = makePage((now) => (now >= 12 ? 'wide' : ''));
    await liveOn(once.living);
    expect(once.read).toEqual([12]);
    const gone = makePage((now) => (now >= 12 && now < 40 ? 'wide' : ''));
    await liveOn(gone.living);
    expect(gone.read).toEqual([12, 45]);
    const small = makePage(STILL, { fine: (now) => (now > 2 ? 'moved' : '') });
    await liveOn(small.living);
    expect(small.read).toEqual([60]);
  });

  test('of what changes all the time has two moments and its end', async () => {
    const { living, read } = makePage(String);
    await liveOn(living);
    expect(read).toEqual([1, 2, 60]);
  });

  test('tells the later of two clocks', async () => {
    const { living, read } = makePage((now) => (now >= 4 ? 'x' : ''), { ahead: 1600 });
    await liveOn(living);
    expect(read).toEqual([6]);
  });

  test('is read at once where it begins otherwise than the page was when it was read', async () => {
    const ago = (lasting: string, requests: number) => {
      const plain = `${requests}  ${lasting}`;
      return { tooWide: 0, fine: '', plain, lasting };
    };
    const begin = async (rested: ReturnType<typeof ago>, alone: boolean) => {
      const { living, read } = makePage(STILL);
      await liveOn({ ...living, rested, alone });
      return read;
    };
    const same = '0,0,0,0,0,0 as it was';
    expect(await begin(ago(same, 0), false)).toEqual([]);
    expect(await begin(ago(same, 0), true)).toEqual([]);
    expect(await begin(ago('0,0,0,0,0,0 before', 0), false)).toEqual([1]);
    // What is found out about a page asks for this and that; where nothing is, nothing does.
    expect(await begin(ago(same, 1), false)).toEqual([]);
    expect(await begin(ago(same, 1), true)).toEqual([1]);
  });

  test('ends where the page is left', async () => {
    const { living, read } = makePage(STILL, { leavesAt: 9 });
    expect((await liveOn(living)).unseen).toBeNull();
    expect(read).toEqual([9]);
  });

  test('that is not seen to its end says so', async () => {
    const busy = makePage(STILL, { busyFrom: 6 });
    expect((await liveOn(busy.living)).unseen).toMatch(/keeps the page so busy/);
    expect(busy.log.at(-1)).toBe('6 stands');
    const waits = makePage(STILL, { pending: 1 });
    expect((await liveOn(waits.living)).unseen).toMatch(/requests were still under way/);
    const late = makePage(STILL);
    const over = await liveOn({ ...late.living, budget: new Budget(0) });
    expect(over.unseen).toBe('the 0 s that a snippet may take were over');
  });

  test('in which it does not answer any more is stuck there, and nobody says that it hangs', async () => {
    const { living, read, log } = makePage((now) => (now >= 9 ? null : ''));
    expect(await liveOn(living)).toMatchObject({ moments: [], stuck: 9 });
    expect([read, log.at(-1)]).toEqual([[], 'contain']);
  });

  test('is waited for by the machine’s clock to see whether it hangs', async () => {
    const hung = makePage(STILL, { hangs: true });
    expect((await waitOn(hung.living, 6)).unseen).toBeNull();
    expect([hung.read, hung.log]).toEqual([[6], ['stop', 'contain', 'stopped']]);
    const sound = makePage(STILL);
    const living = { ...sound.living, budget: new Budget(1) };
    expect((await waitOn(living, 6)).unseen).toMatch(/keeps the page from answering/);
    expect(sound.read).toEqual([]);
  });
});

describe('a minute is lived on', () => {
  const house = getDefaultHouse();
  const widths = (renders: readonly Render[]) =>
    renders.filter((one) => livesOn(one, renders)).map(({ viewport }) => viewport.width);

  test('in a narrow window and a wide one, of those that no hands use', () => {
    expect(widths(planRenders('x', house, house))).toEqual([390, 1280]);
    const [phone, , , desktop] = house.viewports;
    const few = planRenders('x', house, { ...house, viewports: [phone!, desktop!] });
    expect(widths(few)).toEqual([320, 1280]);
    expect(widths(few.slice(0, 1))).toEqual([320]);
  });

  test('in each place', () => {
    const slots = [house.slots[0]!, { ...house.slots[0]!, name: 'aside' }];
    expect(widths(planRenders('x', house, { ...house, slots }))).toEqual([390, 1280, 390, 1280]);
  });
});
