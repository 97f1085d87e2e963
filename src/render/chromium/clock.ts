import { setTimeout } from 'node:timers/promises';
import { within } from '../bounds/limit.js';
import type { Passed } from '../page/browser-page.js';
import { flatMap } from '../../core/lists.js';
import type { Session } from './connection.js';

/** How long a line that its server holds open may keep the time standing, ms. */
const HELD = 3000;
/** About as long as a frame is shown, ms: in so long what moves goes as far as the time does. */
const FRAME = 16;
/** How long the next frame may take, ms. */
const LATE = 1000;
/** How long others may take to tell of their time behind the first, ms. */
const GRACE = 40;
/** Next to nothing: from none at all it does not go on from where it was. */
const STANDING = 1e-4;
/** So many tasks may follow each other at one moment before time moves all the same. */
const STARVED = 1000;

/** Whether time stands while something is asked for. */
const WAITING = 'pauseIfNetworkFetchesPending';
type Policy = typeof WAITING | 'advance';

/** What a clock goes by. */
export interface Ticking {
  /** How much is asked for and has not come. */
  countPending(): number;
  /** Resolves with the next frame, to where the page's animations are by then, ms. */
  showFrame(): Promise<number>;
}

/**
 * The time of a page, of the frames in it and of its workers, which goes on all by itself until it is moved on for
 * the first time, and then only as far as it is moved.
 */
export class Clock {
  /** Pages and frames, each with the workers of its process. */
  #groups = new Map<Session, Set<Session>>();
  #ticking: Ticking;
  moved = false;
  /** So much is asked for that stays open, and is not waited for any more; null: nothing that keeps the time standing. */
  #held: number | null = null;
  /** How far animations are ahead of the time, and where they were at the last frame, ms. */
  #ahead = 0;
  #shown: number | null = null;
  #flows: AbortController | null = null;
  #flowing: Promise<void> = Promise.resolve();

  constructor(ticking: Ticking) {
    this.#ticking = ticking;
  }

  /**
   * Takes up a target: they are moved on together.
   * @param owner of a worker, the page or frame that it is of
   */
  follow(session: Session, owner: Session = session): void {
    const group = this.#groups.get(owner) ?? new Set();
    this.#groups.set(owner, group.add(session));
    session.onEnd(() => {
      group.delete(session);
      if (session === owner) this.#groups.delete(owner);
    });
  }

  get #sessions(): Session[] {
    return flatMap([...this.#groups.values()], (group) => [...group]);
  }

  /**
   * Moves it on, and what moves along with it. While something is under way it stands, but for lines that stay open.
   * @param ms of the page
   * @param limit how long its code may take for it, ms
   * @param then how it goes on: not at all, or with that of the machine
   */
  async pass(ms: number, limit: number, then: 'stands' | 'flows'): Promise<Passed> {
    await this.stop();
    if (!this.moved) this.#shown = await this.#showFrame();
    this.moved = true;
    this.#setPace(STANDING);
    const busy = !(await this.#passAll(ms, limit));
    // Animations go by frames, and frames by the time of the machine.
    this.#setPace(Math.max((ms - this.#ahead) / FRAME, STANDING));
    const after = await this.#showFrame();
    this.#setPace(then === 'flows' ? 1 : STANDING);
    if (then === 'flows') this.#flowing = this.#flow((this.#flows = new AbortController()).signal);
    if (after !== null) this.#ahead += after - (this.#shown ?? after) - ms;
    this.#shown = after ?? this.#shown;
    return { busy, ahead: Math.max(this.#ahead, 0) };
  }

  /** It goes no further by itself. */
  async stop(): Promise<void> {
    this.#flows?.abort();
    await within(this.#flowing, LATE);
    // Where animations went meanwhile is no lead.
    if (this.#flows) this.#shown = await this.#showFrame();
    this.#flows = null;
  }

  /** Moves it on by as much as the machine's does, a little at a time. */
  async #flow(signal: AbortSignal): Promise<void> {
    const aborted = whenAborted(signal);
    for (let at = performance.now(); !signal.aborted && this.#groups.size > 0;) {
      const now = performance.now();
      const passing = flatMap([...this.#groups.values()], (group) =>
        [...group].map((one) => move(one, Math.max(now - at, 1), 'advance')),
      );
      at = now;
      await Promise.race([...passing, aborted]);
      await setTimeout(FRAME);
    }
  }

  #showFrame(): Promise<number | null> {
    return within(this.#ticking.showFrame(), LATE).catch(() => null);
  }

  #setPace(playbackRate: number): void {
    for (const one of this.#sessions) one.tell('Animation.setPlaybackRate', { playbackRate });
  }

  /** Whether it went so far. */
  async #passAll(ms: number, limit: number): Promise<boolean> {
    const { countPending } = this.#ticking;
    const all = this.#sessions;
    const isOpen = this.#held !== null && countPending() <= this.#held;
    const policy = isOpen ? 'advance' : WAITING;
    const groups = [...this.#groups.values()].map((group) => [...group]);
    const end = performance.now() + limit;
    const passing = Promise.all(groups.map((group) => this.#moveTogether(group, ms, policy, end)));
    const soon = await within(passing, Math.min(HELD, limit));
    if (soon !== null) return soon.every(Boolean);
    this.#held = countPending();
    // Now without regard to what is asked for.
    for (const one of all) grant(one, ms, 'advance').catch(() => undefined);
    const late = await within(passing, Math.max(end - performance.now(), 0));
    return late?.every(Boolean) ?? false;
  }

  /**
   * Of several targets in one process, whose clocks are one, it may be only one that tells of its time: the others
   * are given a moment.
   * @returns whether they are where they are to be
   */
  async #moveTogether(
    group: readonly Session[],
    ms: number,
    policy: Policy,
    end: number,
  ): Promise<boolean> {
    const moves = group.map((one) => move(one, ms, policy));
    const whole = Promise.all(moves).then(() => true);
    if (group.length === 1) return whole;
    await Promise.race(moves);
    const { countPending } = this.#ticking;
    while (performance.now() < end) {
      if ((await within(whole, GRACE)) || countPending() === 0) return true;
    }
    return false;
  }
}

function whenAborted(signal: AbortSignal): Promise<void> {
  return new Promise((resolve) => {
    if (signal.aborted) resolve();
    else signal.addEventListener('abort', () => resolve(), { once: true });
  });
}

/** Resolves when a target's time is where it is to be, or the target is gone. */
async function move(session: Session, ms: number, policy: Policy): Promise<void> {
  const over = new Promise<void>((resolve) => {
    const onOver = () => {
      session.off('Emulation.virtualTimeBudgetExpired', onOver);
      forget();
      resolve();
    };
    session.on('Emulation.virtualTimeBudgetExpired', onOver);
    const forget = session.onEnd(onOver);
  });
  const granted = await grant(session, ms, policy);
  // A kind of worker that has no clock of its own goes by that of its page.
  if (granted) await over;
}

function grant(session: Session, budget: number, policy: Policy): Promise<boolean> {
  const wish = { policy, budget, maxVirtualTimeTaskStarvationCount: STARVED };
  return session.send('Emulation.setVirtualTimePolicy', wish).then(
    () => true,
    () => false,
  );
}
