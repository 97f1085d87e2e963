import type { Evidence, FactKind, WidthsFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { getRenderKey, type Render } from '../../core/render.js';
import { attempt, getState } from './attempt.js';
import {
  canPostpone,
  getHands,
  loseAll,
  NO_HANDS,
  livesOn,
  QUICK,
  UNHURRIED,
  type Job,
  type Manner,
  type Purpose,
  type Subject,
} from './job.js';
import { markCut } from '../bounds/lost.js';
import { NOTHING, type Learned } from './learned.js';
import type { Loading } from './load-windows.js';
import { keepNaturals } from './naturals.js';
import type { Moment } from '../living.js';
import { LONGEST_WAIT } from '../minute.js';
import type { Place } from './places.js';

/** What is done in a series besides looking at it. */
export interface Doing {
  /** The first minute is lived on. */
  minute: boolean;
  /** Keys and fingers are tried. */
  hands: boolean;
}

/** How a series is rendered. */
export interface SeriesOptions extends Doing {
  /** In what state a place is left. */
  leaves: 'clean' | 'used';
  /** The kinds of facts that somebody reads of a render. */
  getWants(render: Render): ReadonlySet<FactKind>;
  /** Nothing on the page can tell one kind of window from another. */
  windowsAlike: boolean;
}

const NO_BASELINE = 'the page without the snippet could not be rendered';
const LOST = 'the browser broke down on it each time it was tried';

/** How far a series has come: what its next render goes by. */
interface State {
  /** null where there is none, or the last one was left. */
  place: Place | null;
  manner: Manner;
  known: readonly Learned[];
}

/**
 * Makes the renders of one page, one after the other in one place. What fails costs its own render.
 * @returns for each render the evidence of each of its snippets, and behind these what was seen later in some of them
 */
export async function renderSeries(
  loading: Loading,
  subject: Subject,
  renders: readonly Render[],
  { leaves, getWants, windowsAlike, minute, hands }: SeriesOptions,
  onRender: () => void,
): Promise<Evidence[][]> {
  const evidence: Evidence[][] = [];
  const later: Evidence[][] = [];
  const waiting: [Render, Purpose][] = [];
  let stuck = false;
  const known = subject.texts.map(() => NOTHING);
  let state: State = { place: null, manner: UNHURRIED, known };
  const make = async (render: Render, purpose: Purpose) => {
    const made = await makeNext(loading, state, subject, render, purpose);
    later.push(...made.later.map((one) => one.evidence));
    stuck ||= made.stuck !== null;
    const own = getOwnMinute(made);
    if (own) waiting.push([render, { ...purpose, hands: NO_HANDS, minute: own }]);
    return made;
  };
  try {
    for (const [at, render] of renders.entries()) {
      const made = await make(render, {
        wants: getWants(render),
        hands: hands ? getHands(render, renders) : NO_HANDS,
        postpones: windowsAlike && canPostpone(render, renders.slice(at + 1)),
        shots: loading.pictures ? 'last' : 'none',
        region: null,
        // What stands still in one window need not be waited for in another.
        minute: minute && !stuck && livesOn(render, renders) ? 'also' : 'no',
      });
      state = made.state;
      evidence.push(made.evidence);
      onRender();
    }
    // While these are made more may be added.
    for (const [render, purpose] of waiting) {
      const made = await make(render, purpose);
      state = { ...made.state, known: state.known };
      const at = renders.indexOf(render);
      evidence[at] = addMissing(evidence[at]!, made);
    }
    for (const render of listPostponed(renders, state)) {
      const made = await makeNext(loading, state, subject, render, QUICK);
      state = { ...made.state, known: settle(made.state.known, render, made.evidence) };
    }
  } finally {
    await state.place?.leave(leaves);
  }
  const whole = evidence.map((all) =>
    all.map((one, of) => withWidths(one, state.known[of]!.settled)),
  );
  const standing = whole.flat();
  return [...whole, ...later.map((all) => all.map((one) => keepNaturals(one, standing)))];
}

/** Whether a minute takes a load of its own, and how it is lived on there. */
function getOwnMinute({ waits, stuck }: Pick<Made, 'waits' | 'stuck'>): Purpose['minute'] | null {
  if (stuck !== null && stuck <= LONGEST_WAIT) return { until: stuck };
  return waits ? 'only' : null;
}

/** A minute that could not be lived on is missing where it was to be. */
function addMissing(standing: Evidence[], { evidence }: Pick<Made, 'evidence'>): Evidence[] {
  const why = flatMap(evidence, ({ gaps }) => gaps)[0]?.why;
  return why === undefined ? standing : markCut(standing, why);
}

/** The renders whose windows no later one could search. */
function listPostponed(renders: readonly Render[], { known }: State): Render[] {
  const keys = new Set(flatMap(known, ({ postponed }) => postponed.map(({ key }) => key)));
  return renders.filter((render) => keys.has(getRenderKey(render)));
}

/** What was searched in a load of its own. */
function settle(
  known: readonly Learned[],
  render: Render,
  made: readonly Evidence[],
): readonly Learned[] {
  const key = getRenderKey(render);
  return known.map((one, of) => {
    const { widths, gaps } = made[of]!;
    const isPostponed = one.postponed.some((other) => other.key === key);
    const isLost = gaps.some(({ kind, kept }) => kind === 'widths' && kept === null);
    if (!isPostponed || isLost) return one;
    return { ...one, settled: new Map([...one.settled, [key, widths]]) };
  });
}

function withWidths(one: Evidence, settled: ReadonlyMap<string, WidthsFact>): Evidence {
  const widths = settled.get(getRenderKey(one.render));
  return widths ? { ...one, widths } : one;
}

/** One more render, and how far the series has come with it. */
async function makeNext(
  loading: Loading,
  { place, manner, known }: State,
  subject: Subject,
  render: Render,
  purpose: Purpose,
): Promise<Omit<Made, 'learned' | 'place' | 'careful'> & { state: State }> {
  const { budget, signal } = loading;
  signal?.throwIfAborted();
  const profile = manner.hanging;
  const job: Job = { ...manner, ...purpose, profile, subject, render, baseline: null, known };
  if (budget.isOver) {
    const evidence = loseAll(job, budget.words);
    return { evidence, ...NOT_LIVED, state: { place, manner, known } };
  }
  const made = await makeRender(loading, place, job);
  const [{ scripts, page }] = made.evidence as [Evidence];
  const next: Manner = {
    ...manner,
    careful: made.careful,
    hanging: manner.hanging || scripts.hung !== null,
    restless: manner.restless || page.stillMoving.length > 0,
  };
  // Where time was moved on nothing else can be loaded.
  if (made.place?.page.aged) await made.place.leave('used');
  const at = made.place?.page.aged ? null : made.place;
  const { evidence, later, waits, stuck, learned } = made;
  return { evidence, later, waits, stuck, state: { place: at, manner: next, known: learned } };
}

/** The evidence of a render, what it has taught, and the place that the next one can be made in. */
interface Made {
  evidence: Evidence[];
  /** What was seen later in it, and whether that is still to be looked at. */
  later: readonly Moment[];
  waits: boolean;
  /** When it did not answer any more within its first minute, s; null where it did. */
  stuck: number | null;
  learned: readonly Learned[];
  /** null where it was left. */
  place: Place | null;
  /** It could be looked at only with care. */
  careful: boolean;
}

/** Whatever breaks down in it is a gap of this render. */
async function makeRender(loading: Loading, place: Place | null, job: Job): Promise<Made> {
  let at = place;
  try {
    const baseline = await loading.find(job.render);
    if (baseline === null) return { ...lose(job, NO_BASELINE), place };
    const isLater = job.minute !== 'no';
    const later = isLater ? await loading.find({ ...job.render, variant: 'minute' }) : null;
    at ??= await loading.enter('shared');
    return await tryTwice(loading, at, { ...job, baseline, later });
  } catch (error) {
    await at?.leave('used');
    if (loading.signal?.aborted) throw error;
    return { ...lose(job, loading.explain(error)), place: null };
  }
}

/** Nothing came of it, and nothing was learned. */
function lose(job: Job, why: string): Again {
  const { known, careful } = job;
  return { evidence: loseAll(job, why), ...NOT_LIVED, learned: known, careful };
}

/** A crash or a hang costs its render only: tried once more in a new place, then told as a gap. */
async function tryTwice(loading: Loading, place: Place, job: Job): Promise<Made> {
  const { budget, signal } = loading;
  const { careful } = job;
  const first = await attempt(loading, place, job);
  const known: Again | null = first.done && { ...first.done, careful };
  const hung = known?.evidence[0]?.scripts.hung;
  const { gone, happened } = first.place.page;
  const { crashed } = happened;
  if (known && !hung && !crashed && !gone) return { ...known, place: first.place };
  await first.place.leave(getState(first));
  if (known && (budget.isOver || (hung && job.hanging))) return { ...known, place: null };
  if (budget.isOver) return { ...lose(job, budget.words), place: null };
  const again = crashed ? tryAsCrashed(loading, job) : tryAgain(loading, job);
  const second = await again.catch((error: unknown) => {
    if (known === null || signal?.aborted) throw error;
    return null;
  });
  const otherwise = known ?? lose(job, budget.isOver ? budget.words : LOST);
  return { ...(second ?? otherwise), place: null };
}

type Again = Omit<Made, 'place'>;

const NOT_LIVED = { later: [], waits: false, stuck: null };

/** Once more in a new place; null where nothing comes of it. */
async function tryAgain(loading: Loading, job: Job): Promise<Again | null> {
  const tried = await attempt(loading, await loading.enter('shared'), { ...job, profile: true });
  await tried.place.leave(getState(tried));
  const { careful } = job;
  const { done, place } = tried;
  return done && !place.page.happened.crashed ? { ...done, careful } : null;
}

/**
 * What crashed may have crashed of being looked at: it is looked at with care, and then without its code. What stands
 * then was taken down by that.
 */
async function tryAsCrashed(loading: Loading, job: Job): Promise<Again | null> {
  const careful = await tryAgain(loading, { ...job, careful: true });
  const live = job.scripted && job.subject.traits.some((one) => one.live);
  if (careful || !live) return careful;
  return tryAgain(loading, { ...job, careful: true, scripted: false });
}
