import { patiently } from './bounds/patience.js';
import { glimpse } from './glimpse.js';
import type { FlashWatch } from './flash-watch.js';
import type { Glance } from './in-page/glance.js';
import type { Lived, Living, Moment } from './living.js';

/** So much time is given to the page at each place, ms: what comes into view may move in. */
const STAY = 1000;
/** How long a call may take, ms. */
const CALLED = 3000;

/** What was noticed at one place on the way down. */
interface Stop {
  /** px. */
  scrolled: number;
  glance: Glance;
}

/**
 * Scrolls a page down, a window at a time, looks at each place in passing, and reads it where it is otherwise
 * than at its top. Its time moves on only there.
 * @param after how much of it is over, s
 * @param watch told of each place; null: it is not watched
 */
export async function goDown(
  living: Living,
  after: number,
  watch: FlashWatch | null,
): Promise<Lived> {
  const { page, limits, budget, read } = living;
  const ask = <T>(asking: Promise<T>) => patiently(asking, CALLED).catch(() => null);
  const visit = async (top: number) => {
    const gone = await ask(page.read('scrollTo', top).then(() => true));
    return (
      gone !== null && !(await page.pass(STAY, Math.min(limits.hang, budget.left), 'stands')).busy
    );
  };
  const stops = (await ask(page.read('listStops'))) ?? [];
  const top = stops.length > 0 ? await glimpse(page) : null;
  if (top === null || (await ask(page.read('noteStop'))) === null) return NOTHING;
  const met: Stop[] = [];
  const flashing: Moment[] = [];
  for (const stop of stops) {
    if (budget.isOver) return { moments: [], unseen: budget.words };
    const visited = await visit(stop);
    if (page.happened.left) {
      const down = { scrolled: stop, covered: [] };
      return { moments: [await read({ after, down })], unseen: null };
    }
    const glance = visited ? await glimpse(page) : null;
    const scrolled = glance && (await ask(page.read('noteStop')));
    if (glance === null || scrolled === null) return { moments: [], unseen: UNSEEN };
    met.push({ scrolled, glance });
    const limit = Math.min(limits.hang, budget.left);
    const watched = await ask(Promise.resolve(watch?.lookDown(scrolled, limit) ?? null));
    if (watched) flashing.push(await read({ after, watched, down: { scrolled, covered: [] } }));
  }
  const covered = await ask(page.read('listCoveredOnTheWay'));
  if (covered === null) return { moments: [], unseen: UNSEEN };
  const lived: Lived = { moments: flashing, unseen: null };
  const picked = living.empty ? met : pickStops(top, met, covered.length > 0);
  for (const { scrolled } of picked) {
    if (!(await visit(scrolled))) return { ...lived, unseen: UNSEEN };
    lived.moments.push(await read({ after, down: { scrolled, covered } }));
  }
  return lived;
}

const NOTHING: Lived = { moments: [], unseen: null };
const UNSEEN = 'its code keeps the page from being looked at on the way down';

/** Where it is read as a whole: where it is widest, or first otherwise than at its top, and where it is so last. */
function pickStops(top: Glance, met: readonly Stop[], covers: boolean): Stop[] {
  const others = met.filter(({ glance }) => glance.plain !== top.plain);
  const widest = [...others].sort((a, b) => b.glance.tooWide - a.glance.tooWide)[0];
  const first = widest && widest.glance.tooWide > top.tooWide ? widest : others[0];
  const last = others.at(-1) ?? (covers ? met.at(-1) : undefined);
  const isOther = first && last && first.glance.plain !== last.glance.plain;
  return [...(first ? [first] : []), ...(last && (!first || isOther) ? [last] : [])];
}
