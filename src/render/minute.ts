import { within } from './bounds/limit.js';
import { awaitNetwork } from './collect/rest.js';
import { goDown } from './down.js';
import { FlashWatch } from './flash-watch.js';
import { glimpse, type Glimpse } from './glimpse.js';
import type { Glance } from './in-page/glance.js';
import type { Lived, Living, Moment } from './living.js';

/** After so many seconds it is looked at. What goes from frame to frame needs some of them in between. */
const MOMENTS = [1, 2, 4, 6, 9, 12, 16, 20, 25, 30, 45, 60];
/**
 * Every other moment is so much late, and later each time, ms: what goes back and forth would look the same after steps of
 * whole seconds.
 */
const [LATE, LATER] = [37, 8];
/** So often it is read as a whole, the end of the minute among them. */
const MOST = 3;

/** Moves a page's own time on by a minute, looks at it in passing, and reads it where it is otherwise. */
export async function liveOn(living: Living): Promise<Lived> {
  const { page, limits, budget, read } = living;
  const moments: Moment[] = [];
  let known = await glimpse(page);
  let missed = isOther(living, known);
  let before = 0;
  const watch = await FlashWatch.begin(living);
  for (const [i, to] of MOMENTS.entries()) {
    if (budget.isOver) return { moments, unseen: budget.words };
    const limit = Math.min(limits.hang, budget.left);
    const late = LATE + LATER * (i - (i % 2));
    const ms = 1000 * (to - before) + (i % 2 === 0 ? late : -late);
    const { busy, ahead } = await page.pass(ms, limit, 'stands');
    before = to;
    const after = to + Math.round(ahead / 1000);
    const now = await glimpse(page);
    if (page.happened.left) return { moments: [...moments, await read({ after })], unseen: null };
    if (now === null) {
      await page.contain(false);
      return { moments, unseen: STUCK, stuck: to };
    }
    const isLast = to === MOMENTS.at(-1);
    const isLooked = isLast || moments.length < MOST - 1;
    if (isLooked && (missed || differs(known, now, isLast))) {
      moments.push(await read({ after }));
      [known, missed] = [now, false];
    }
    const watched = await watch?.look(known === now, limit);
    if (watched) moments.push(await read({ after, watched }));
    if (busy) return { moments, unseen: BUSY };
  }
  await awaitNetwork(page, Math.min(HELD, budget.left));
  const pending = page.requests.pending > 0 ? PENDING : null;
  const down = await goDown(living, before, watch);
  await watch?.end();
  return { moments: [...moments, ...down.moments], unseen: pending ?? down.unseen };
}

/** So long is waited at its end for what is still under way, ms. */
const HELD = 3000;

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
  return { moments: [await read({ after: until, stopped: { hottest } })], unseen: null };
}

const STUCK =
  'its code keeps the page from answering within its first minute, at least while time stands';
const BUSY = 'its code keeps the page so busy that its first minute was not seen to its end';
const PENDING = 'requests were still under way when its first minute was over';

/** Whether something has come since it was read: its time goes on while more is found out about it. */
function isOther({ rested, alone }: Living, begun: Glimpse | null): boolean {
  if (rested === null || begun === null) return false;
  return alone ? rested.plain !== begun.plain : rested.lasting !== begun.lasting;
}

function differs(a: Glance | null, b: Glance, finely: boolean): boolean {
  return a?.plain !== b.plain || (finely && a.fine !== b.fine);
}
