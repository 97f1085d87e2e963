import { setTimeout } from 'node:timers/promises';
import { within } from '../bounds/limit.js';
import { patiently } from '../bounds/patience.js';
import type { RequestLog } from '../page/request-log.js';
import type { Passed } from '../page/browser-page.js';
import type { Shown } from '../in-page/glance.js';
import { flatMap } from '../../core/lists.js';
import type { Session } from './connection.js';
import { goOn, moveOn, readTime, stand, WAITING, type TimePolicy, type Timed } from './time.js';

/** How long a line that its server holds open may keep the time standing, ms. */
const HELD = 3000;
/** About as long as a frame is shown, ms: in so long what moves goes as far as the time does. */
const FRAME = 16;
/** How long the next frame may take, ms. */
const LATE = 1000;
/** One that comes sooner does not take animations as far: they are waited for, but for a tenth, in so many more. */
const MOST_FRAMES = 8;
const NEAR = 0.9;
/** What begins only now has as much of its time, however far others are ahead. */
const LEAST = 0.5;
/** Next to nothing: from none at all it does not go on from where it was. */
const STANDING = 1e-4;

/** What a clock goes by. */
export interface Ticking {
  requests: Pick<RequestLog, 'pending' | 'open' | 'whenIdle'>;
  /** Resolves with the next frame. */
  showFrame(): Promise<Shown>;
  /** What the last frame showed. */
  tellFrame(): Promise<Shown>;
}

/**
 * The time of a page, of the frames in it and of its workers, which goes on all by itself until it is moved on for
 * the first time, and then only as far as it is moved.
 */
export class Clock {
  /** Pages and frames, each with the workers of its process. */
  #groups = new Map<Session, Set<Session>>();
  /** Workers that may live in the process of any of the frames. */
  #homeless = new WeakSet<Session>();
  /** Whose time goes no further by itself any more. */
  #standing = new WeakSet<Session>();
  #ticking: Ticking;
  moved = false;
  /** So much is asked for that stays open, and is not waited for any more; null: nothing that keeps the time standing. */
  #held: number | null = null;
  /** How far animations are ahead of the time, and where they were at the last frame, ms. */
  #ahead = 0;
  #shown: number | null = null;
  #animated = false;
  #flows: AbortController | null = null;
  #flowing: Promise<void> = Promise.resolve();

  constructor(ticking: Ticking) {
    this.#ticking = ticking;
  }

  /**
   * Takes up a target: they are moved on together.
   * @param owner of a worker, the page or frame that it is of
   * @param isHomeless it may live in another process than that: its clock is not known
   */
  follow(session: Session, owner: Session = session, isHomeless = false): void {
    if (isHomeless) this.#homeless.add(session);
    const group = this.#groups.get(owner) ?? new Set();
    this.#groups.set(owner, group.add(session));
    session.onEnd(() => {
      group.delete(session);
      if (session === owner) this.#groups.delete(owner);
    });
  }

  get #targets(): Timed[] {
    return flatMap([...this.#groups], ([owner, group]) =>
      [...group].map((session) => ({ session, owner })),
    );
  }

  /**
   * Moves it on, and what moves along with it. While something is under way it stands, but for lines that stay open.
   * @param ms of the page
   * @param limit how long its code may take for it, ms
   * @param then how it goes on: not at all, or with that of the machine
   */
  async pass(ms: number, limit: number, then: 'stands' | 'flows'): Promise<Passed> {
    await this.stop();
    const { tellFrame } = this.#ticking;
    if (!this.moved) this.#shown = await this.#showNext();
    this.moved = true;
    this.#setPace(STANDING);
    const busy = !(await this.#passAll(ms, limit));
    // Animations go by frames, and frames by the time of the machine.
    const far = Math.max(ms - this.#ahead, LEAST * ms);
    this.#setPace(Math.max(far / FRAME, STANDING));
    await this.#showUntil(this.#shown === null ? 0 : this.#shown + far * NEAR);
    this.#setPace(then === 'flows' ? 1 : STANDING);
    // At such a pace they go far before they stand, where the machine is slow.
    const last = await inTime(tellFrame);
    const after = last?.at ?? null;
    this.#animated ||= last?.animated ?? true;
    if (then === 'flows') this.#flowing = this.#flow((this.#flows = new AbortController()).signal);
    if (after !== null) this.#ahead += after - (this.#shown ?? after) - ms;
    this.#shown = after ?? this.#shown;
    return { busy, ahead: this.#animated ? Math.max(this.#ahead, 0) : 0 };
  }

  /** It goes no further by itself. */
  async stop(): Promise<void> {
    this.#flows?.abort();
    await within(this.#flowing, LATE);
    // Where animations went meanwhile is no lead.
    if (this.#flows) this.#shown = await this.#showNext();
    this.#flows = null;
  }

  /** Moves it on by as much as the machine's does, a little at a time. */
  async #flow(signal: AbortSignal): Promise<void> {
    const aborted = whenAborted(signal);
    const underWay = new Map<Session, Promise<void>>();
    for (let at = performance.now(); !signal.aborted && this.#groups.size > 0;) {
      const now = performance.now();
      const ready = this.#targets.filter(({ session }) => !underWay.has(session));
      for (const one of ready) {
        const moving = moveOn(one, Math.max(now - at, 1), 'advance');
        underWay.set(
          one.session,
          moving.finally(() => underWay.delete(one.session)),
        );
      }
      at = now;
      await Promise.race([...underWay.values(), aborted]);
      await setTimeout(FRAME);
    }
    await Promise.all(underWay.values());
  }

  /** Where animations are by the next frame, ms; null where it does not come. */
  async #showNext(): Promise<number | null> {
    return (await inTime(this.#ticking.showFrame))?.at ?? null;
  }

  /** Frames, until animations have come so far, ms. */
  async #showUntil(goal: number): Promise<void> {
    for (let frames = 0; frames < MOST_FRAMES; frames++) {
      const shown = await inTime(this.#ticking.showFrame);
      if (!shown?.animated || shown.at >= goal) return;
    }
  }

  #setPace(playbackRate: number): void {
    for (const { session } of this.#targets)
      session.tell('Animation.setPlaybackRate', { playbackRate });
  }

  /** Whether it went so far. */
  async #passAll(ms: number, limit: number): Promise<boolean> {
    const { requests } = this.#ticking;
    const targets = this.#targets;
    // Where time was kept standing by a line that stays open, frames hardly come any more.
    if (requests.open > 0) await within(requests.whenIdle(), Math.min(HELD, limit));
    const isHeld = this.#held !== null && requests.pending <= this.#held;
    const isOpen = isHeld || requests.open > 0;
    const passing = this.#moveAll(targets, ms, isOpen ? 'advance' : WAITING);
    const soon = await within(passing, Math.min(HELD, limit));
    if (soon) return true;
    this.#held = requests.pending;
    // Now without regard to what is asked for.
    for (const { session } of targets) goOn(session);
    return (await patiently(passing, Math.max(limit - HELD, 0))) ?? false;
  }

  /** Those of one process have one clock: it must stand in all of them before any has a goal. */
  async #moveAll(targets: readonly Timed[], ms: number, policy: TimePolicy): Promise<true> {
    const fresh = targets.filter(({ session }) => !this.#standing.has(session));
    await Promise.all(fresh.map(({ session }) => stand(session)));
    for (const { session } of fresh) this.#standing.add(session);
    const owners = [...new Set(targets.map(({ owner }) => owner))];
    const times = await Promise.all(owners.map(readTime));
    const goals = new Map(owners.map((owner, i) => [owner, times[i]! + ms]));
    // One whose clock is not known has no goal: the frame that it lives with has.
    const getGoal = ({ session, owner }: Timed) =>
      this.#homeless.has(session) ? null : goals.get(owner);
    await Promise.all(targets.map((one) => moveOn(one, ms, policy, getGoal(one))));
    return true;
  }
}

function inTime(frame: () => Promise<Shown>): Promise<Shown | null> {
  return patiently(frame(), LATE).catch(() => null);
}

function whenAborted(signal: AbortSignal): Promise<void> {
  return new Promise((resolve) => {
    if (signal.aborted) resolve();
    else signal.addEventListener('abort', () => resolve(), { once: true });
  });
}
