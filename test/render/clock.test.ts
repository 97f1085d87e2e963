import { EventEmitter } from 'node:events';
import { describe, expect, test } from '@jest/globals';
import { Clock } from '../../src/render/chromium/clock.js';
import type { Session } from '../../src/render/chromium/connection.js';

interface Sent {
  who: string;
  policy: string;
  budget: number;
}

interface Made {
  sent?: Sent[];
  /** Whether it tells when its time is where it is to be; else it keeps silent. */
  tells?: (policy: string) => boolean;
  /** Of its moves, so much is cut off: what ended one before comes in between. */
  short?: number[];
}

/** A target, of which only what is asked with a budget is kept in mind, and what else as a word. */
function makeSession(who: string, { sent = [], tells = () => true, short = [] }: Made = {}) {
  const events = new EventEmitter();
  let time = 0;
  const paces: number[] = [];
  const words: string[] = [];
  const session = {
    on: (name: string, listener: () => void) => events.on(name, listener),
    off: (name: string, listener: () => void) => events.off(name, listener),
    onEnd(listener: () => void) {
      events.on('end', listener);
      return () => events.off('end', listener);
    },
    hold: () => Promise.resolve(),
    tell(_method: string, params?: { playbackRate?: number; policy?: string }) {
      if (params?.playbackRate !== undefined) paces.push(params.playbackRate);
      if (params?.policy) words.push(params.policy);
    },
    send(method: string, asked?: { policy: string; budget?: number }) {
      if (method === 'Performance.getMetrics')
        return Promise.resolve({ metrics: [{ name: 'Timestamp', value: time / 1000 }] });
      const { policy, budget } = asked!;
      if (budget === undefined) {
        words.push(policy);
        return Promise.resolve();
      }
      sent.push({ who, policy, budget });
      time += budget - (short.shift() ?? 0);
      if (tells(policy)) setImmediate(() => events.emit('Emulation.virtualTimeBudgetExpired'));
      return Promise.resolve();
    },
  };
  const end = () => events.emit('end');
  return { session: session as unknown as Session, paces, words, end };
}

/** A clock whose animations go as far as these, ms, frame by frame. */
function makeClock(frames: number[], animated = true, open = 0) {
  let at = -1;
  const show = (off = 0) =>
    Promise.resolve({ at: frames[Math.min(at, frames.length - 1)]! - off, animated });
  return new Clock({
    requests: { pending: 0, open, whenIdle: () => Promise.resolve() },
    // After the first, what is shown goes on until it stands.
    showFrame: () => show(++at === 0 ? 0 : 50),
    tellFrame: () => show(),
  });
}

describe('a page’s time', () => {
  test('frames that come too soon are followed by others, until animations are where it is', async () => {
    const clock = makeClock([0, 300, 900, 1950, 3000]);
    const { session, paces } = makeSession('page');
    clock.follow(session);
    await clock.pass(2000, 1000, 'stands');
    await clock.pass(1000, 1000, 'stands');
    // What the first move left to be made up for, the second would have to hurry for.
    expect(Math.max(...paces)).toBe(2000 / 16);
  });

  test('frames that lead nowhere are not waited for for ever', async () => {
    const clock = makeClock([0, 100]);
    clock.follow(makeSession('page').session);
    expect(await clock.pass(2000, 1000, 'stands')).toEqual({ busy: false, ahead: 0 });
  });

  test('moves with that of its frames, as far as it is to', async () => {
    const sent: Sent[] = [];
    const clock = makeClock([0, 2000]);
    expect(clock.moved).toBe(false);
    const page = makeSession('page', { sent });
    clock.follow(page.session);
    clock.follow(makeSession('frame', { sent }).session);
    expect(await clock.pass(2000, 1000, 'stands')).toEqual({ busy: false, ahead: 0 });
    const policy = 'pauseIfNetworkFetchesPending';
    expect(sent).toEqual([
      { who: 'page', policy, budget: 2000 },
      { who: 'frame', policy, budget: 2000 },
    ]);
    expect(clock.moved).toBe(true);
    // Next to nothing, then as far as time went within a frame, then next to nothing again.
    expect(page.paces.map(Math.round)).toEqual([0, 125, 0]);
  });

  test('makes up for animations that are ahead of it, and says by how much', async () => {
    const clock = makeClock([100, 1400, 2000]);
    const page = makeSession('page');
    clock.follow(page.session);
    expect((await clock.pass(1000, 1000, 'stands')).ahead).toBe(300);
    expect((await clock.pass(1000, 1000, 'stands')).ahead).toBe(0);
    expect(page.paces[4]).toBe((1000 - 300) / 16);
  });

  test('gives what begins only now its time, however far others are ahead', async () => {
    const clock = makeClock([100, 9000, 9600]);
    const page = makeSession('page');
    clock.follow(page.session);
    await clock.pass(1000, 1000, 'stands');
    await clock.pass(1000, 1000, 'stands');
    expect(page.paces[4]).toBe(500 / 16);
  });

  test('has no animations ahead of it where there are none', async () => {
    const clock = makeClock([100, 1400], false);
    clock.follow(makeSession('page').session);
    expect((await clock.pass(1000, 1000, 'stands')).ahead).toBe(0);
  });

  test('does not stand for a line that stays open', async () => {
    const sent: Sent[] = [];
    const clock = makeClock([0], true, 1);
    clock.follow(makeSession('page', { sent }).session);
    await clock.pass(1000, 1000, 'stands');
    expect(sent.map(({ policy }) => policy)).toEqual(['advance']);
  });

  test('gives no goal to a worker that may live in another process', async () => {
    const sent: Sent[] = [];
    const clock = makeClock([0]);
    // The page is told too soon, and goes the rest; so would the worker, by a clock that is not its own.
    const page = makeSession('page', { sent, short: [400] });
    clock.follow(makeSession('worker', { sent }).session, page.session, true);
    clock.follow(page.session);
    await clock.pass(1000, 1000, 'stands');
    const budgets = (of: string) => sent.filter(({ who }) => who === of).map((one) => one.budget);
    expect([budgets('page'), budgets('worker')]).toEqual([[1000, 400], [1000]]);
  });

  test('stands in all of one process before any of it has a goal, and then has the same', async () => {
    const sent: Sent[] = [];
    const clock = makeClock([0]);
    const page = makeSession('page', { sent });
    const worker = makeSession('worker', { sent });
    clock.follow(page.session);
    clock.follow(worker.session, page.session);
    await clock.pass(1000, 1000, 'stands');
    await clock.pass(2000, 1000, 'stands');
    expect([page.words, worker.words]).toEqual([['pause'], ['pause']]);
    expect(sent.map(({ who, budget }) => `${who} ${budget}`)).toEqual([
      'page 1000',
      'worker 1000',
      'page 2000',
      'worker 2000',
    ]);
  });

  test('goes on to its goal where something ended its move before', async () => {
    const sent: Sent[] = [];
    const clock = makeClock([0]);
    clock.follow(makeSession('page', { sent, short: [400, 0.5] }).session);
    expect((await clock.pass(1000, 1000, 'stands')).busy).toBe(false);
    expect(sent.map(({ budget }) => budget)).toEqual([1000, 400]);
  });

  test('is busy where a target does not get there', async () => {
    const clock = makeClock([0]);
    clock.follow(makeSession('page', { tells: () => false }).session);
    expect((await clock.pass(1000, 20, 'stands')).busy).toBe(true);
  });

  test('waits for its workers', async () => {
    const clock = makeClock([0]);
    const page = makeSession('page');
    clock.follow(page.session);
    clock.follow(makeSession('worker', { tells: () => false }).session, page.session);
    expect((await clock.pass(1000, 20, 'stands')).busy).toBe(true);
  });

  test('goes on with the machine’s where it is to, until it is stopped', async () => {
    const sent: Sent[] = [];
    const clock = makeClock([0]);
    let told: () => void = () => undefined;
    const third = new Promise<void>((resolve) => (told = resolve));
    const tells = () => {
      if (sent.length === 3) told();
      return true;
    };
    const page = makeSession('page', { sent, tells });
    clock.follow(page.session);
    await clock.pass(1000, 1000, 'flows');
    await third;
    await clock.stop();
    const { length } = sent;
    expect(sent.slice(1).every(({ policy, budget }) => policy === 'advance' && budget < 1000)).toBe(
      true,
    );
    await new Promise((resolve) => setImmediate(resolve));
    expect(sent).toHaveLength(length);
  });

  test('of a target that is gone is nobody’s concern', async () => {
    const clock = makeClock([0]);
    const page = makeSession('page', { tells: () => false });
    clock.follow(page.session);
    const passing = clock.pass(1000, 5000, 'stands');
    page.end();
    expect((await passing).busy).toBe(false);
  });
});
