import { within, type Limits } from './bounds/limit.js';
import type { Budget } from './bounds/budget.js';
import type { Glance } from './in-page/glance.js';
import type { BrowserPage, Hottest } from './page/browser-page.js';
import type { Sighting } from './stage.js';
import type { TakenShot } from './steps/shot.js';

/** What was read of a page some time after it had come to rest. */
export interface Moment extends Sighting {
  shots: TakenShot[];
}

/** How a page's first minute went by. */
export interface Lived {
  /** Where it was otherwise than before. */
  moments: Moment[];
  /** Why not all of it was seen; null where it was. */
  unseen: string | null;
  /** When it did not answer any more, s: its code hangs, or it waits for a clock that stands while code runs. */
  stuck?: number;
}

/** A page that came to rest and was read. */
export interface Living {
  page: BrowserPage;
  limits: Limits;
  budget: Budget;
  /** Reads it as it stands; `stopped`: where its code spent its time, where that had to be stopped. */
  read(after: number, stopped: { hottest: Hottest } | null): Promise<Moment>;
}

/** After so many seconds it is looked at. What goes from frame to frame needs some of them in between. */
const MOMENTS = [1, 2, 4, 6, 9, 12, 16, 20, 25, 30, 45, 60];
/** So often it is read as a whole, the end of the minute among them. */
const MOST = 3;
const LOOKED = 1500;

/** Moves a page's own time on by a minute, looks at it in passing, and reads it where it is otherwise. */
export async function liveOn(living: Living): Promise<Lived> {
  const { page, limits, budget, read } = living;
  const moments: Moment[] = [];
  let known = await look(page);
  let before = 0;
  for (const to of MOMENTS) {
    if (budget.isOver) return { moments, unseen: budget.words };
    const limit = Math.min(limits.hang, budget.left);
    const { busy, ahead } = await page.pass(1000 * (to - before), limit, 'stands');
    before = to;
    const after = to + Math.round(ahead / 1000);
    const now = await look(page);
    if (page.happened.left) return { moments: [...moments, await read(after, null)], unseen: null };
    if (now === null) {
      await page.contain(false);
      return { moments, unseen: STUCK, stuck: to };
    }
    const isLast = to === MOMENTS.at(-1);
    if (isLast ? differs(known, now) : moments.length < MOST - 1 && known?.plain !== now.plain) {
      moments.push(await read(after, null));
      known = now;
    }
    if (busy) return { moments, unseen: BUSY };
  }
  return { moments, unseen: page.requests.pending > 0 ? PENDING : null };
}

/** More than that nobody waits by the clock of the machine, s. */
export const LONGEST_WAIT = 15;

/** How much later a timer may go off, s. */
const MARGIN = 2;

/** Waits by the clock of the machine: whether it hangs then. */
export async function waitOn(
  { page, limits, budget, read }: Living,
  until: number,
): Promise<Lived> {
  const heart = page.watchHeart(limits.hang);
  const hung = await within(
    heart.hung,
    Math.min(1000 * (until + MARGIN) + limits.hang, budget.left),
  );
  heart.stop();
  if (hung === null) return { moments: [], unseen: STUCK };
  const hottest = await page.contain(false);
  return { moments: [await read(until, { hottest })], unseen: null };
}

const STUCK =
  'its code keeps the page from answering within its first minute, at least while time stands';
const BUSY = 'its code keeps the page so busy that its first minute was not seen to its end';
const PENDING = 'requests were still under way when its first minute was over';

/** What a visitor would notice at a glance; null where it does not answer. */
async function look(page: Living['page']): Promise<Glance | null> {
  const looking = Promise.all([page.read('glance'), page.readFrames('glanceInside', LOOKED)]);
  const seen = await within(looking, LOOKED).catch(() => null);
  if (seen === null) return null;
  const [glance, framed] = seen;
  const { dialogs, windows, navigations, errors } = page.happened;
  const { requests } = page.requests;
  const told = [dialogs, windows, navigations, errors, requests].map((all) => all.length);
  const inside = framed.map(({ answer }) => answer).sort();
  return { ...glance, plain: `${told.join()} ${inside.join()} ${glance.plain}` };
}

function differs(a: Glance | null, b: Glance): boolean {
  return a?.plain !== b.plain || a.fine !== b.fine;
}
