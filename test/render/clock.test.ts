import { EventEmitter } from 'node:events';
import { describe, expect, test } from '@jest/globals';
import { Clock } from '../../src/render/chromium/clock.js';
import type { Session } from '../../src/render/chromium/connection.js';

interface Sent {
  who: string;
  policy: string;
  budget: number;
}

/** A target: `tells` when its time is where it is to be; else it keeps silent. */
function makeSession(who: string, sent: Sent[], tells: (policy: string) => boolean) {
  const events = new EventEmitter();
  const paces: number[] = [];
  const session = {
    on: (name: string, listener: () => void) => events.on(name, listener),
    off: (name: string, listener: () => void) => events.off(name, listener),
    onEnd(listener: () => void) {
      events.on('end', listener);
      return () => events.off('end', listener);
    },
    tell: (_method: string, { playbackRate }: { playbackRate: number }) => paces.push(playbackRate),
    send: (_method: string, { policy, budget }: { policy: string; budget: number }) => {
      sent.push({ who, policy, budget });
      const isOver = tells(policy);
      if (isOver) setImmediate(() => events.emit('Emulation.virtualTimeBudgetExpired'));
      return Promise.resolve();
    },
  };
  return { session: session as unknown as Session, paces, end: () => events.emit('end') };
}

/** A clock whose animations go as far as these, ms, frame by frame. */
function makeClock(frames: number[], pending = 0) {
  const shown = [...frames];
  return new Clock({
    countPending: () => pending,
    showFrame: () => Promise.resolve(shown.length > 1 ? shown.shift()! : shown[0]!),
  });
}

const ALWAYS = () => true;

describe('a page’s time', () => {
  test('moves with that of its frames, as far as it is to', async () => {
    const sent: Sent[] = [];
    const clock = makeClock([0, 2000]);
    expect(clock.moved).toBe(false);
    const page = makeSession('page', sent, ALWAYS);
    clock.follow(page.session);
    clock.follow(makeSession('frame', sent, ALWAYS).session);
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
    const page = makeSession('page', [], ALWAYS);
    clock.follow(page.session);
    expect((await clock.pass(1000, 1000, 'stands')).ahead).toBe(300);
    expect((await clock.pass(1000, 1000, 'stands')).ahead).toBe(0);
    expect(page.paces[4]).toBe((1000 - 300) / 16);
  });

  test('is busy where a target does not get there', async () => {
    const clock = makeClock([0]);
    clock.follow(makeSession('page', [], () => false).session);
    expect((await clock.pass(1000, 20, 'stands')).busy).toBe(true);
  });

  test('is told by a worker or by its page, whichever tells, while nothing is asked for', async () => {
    const clock = makeClock([0]);
    const page = makeSession('page', [], () => false);
    clock.follow(page.session);
    clock.follow(makeSession('worker', [], ALWAYS).session, page.session);
    expect((await clock.pass(1000, 1000, 'stands')).busy).toBe(false);
    const asking = makeClock([0], 1);
    asking.follow(page.session);
    asking.follow(makeSession('worker', [], ALWAYS).session, page.session);
    expect((await asking.pass(1000, 100, 'stands')).busy).toBe(true);
  });

  test('goes on with the machine’s where it is to, until it is stopped', async () => {
    const sent: Sent[] = [];
    const clock = makeClock([0]);
    let told: () => void = () => undefined;
    const third = new Promise<void>((resolve) => (told = resolve));
    const page = makeSession('page', sent, () => {
      if (sent.length === 3) told();
      return true;
    });
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
    const page = makeSession('page', [], () => false);
    clock.follow(page.session);
    const passing = clock.pass(1000, 5000, 'stands');
    page.end();
    expect((await passing).busy).toBe(false);
  });
});
