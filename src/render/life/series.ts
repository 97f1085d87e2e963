import type { Evidence, FactKind, WidthsFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { getRenderKey, type Render } from '../../core/render.js';
import { markCut } from '../bounds/lost.js';
import { LONGEST_WAIT } from '../minute.js';
import { canPostpone, getHands, livesOn, NO_HANDS, type Purpose, type Subject } from './job.js';
import { Lanes, MOST_LANES } from './lanes.js';
import type { Learned } from './learned.js';
import type { Loading } from './load-windows.js';
import type { Made } from './make-render.js';
import { keepNaturals } from './naturals.js';
import { Progress } from './progress.js';

/** What is done in a series besides looking at it. */
export interface Doing {
  /** The first minute is lived on. */
  minute: boolean;
  /** Keys and fingers are tried. */
  hands: boolean;
  /** Nothing is read of it but how it looks: its picture is taken at once. */
  posesOnly: boolean;
}

/** How a series is rendered. */
export interface SeriesOptions extends Doing {
  /** What is shown from the start is watched. */
  watched: boolean;
  /** In what state a booth is left. */
  leaves: 'clean' | 'used';
  /** The kinds of facts that somebody reads of a render. */
  getWants(render: Render): ReadonlySet<FactKind>;
  /** Nothing on the page can tell one kind of window from another. */
  windowsAlike: boolean;
  /** Each window takes a load of its own, so that they can be made side by side. */
  apart: boolean;
}

/** What comes of a series: for each render the evidence of each snippet, and what was seen later in it. */
interface Results {
  standing: Evidence[][];
  later: Evidence[][][];
  /** Minutes that take a load of their own. */
  alone: Alone[];
}

interface Alone {
  at: number;
  purpose: Purpose;
}

/**
 * Makes the renders of one page. What fails costs its own render.
 * @returns for each render the evidence of each of its snippets, and behind these what was seen later in some of them
 */
export async function renderSeries(
  loading: Loading,
  subject: Subject,
  renders: readonly Render[],
  options: SeriesOptions,
  onRender: () => void,
): Promise<Evidence[][]> {
  const progress = new Progress(loading, subject, options.apart);
  const lanes = new Lanes(loading.seats, options.apart ? MOST_LANES : 1);
  const results: Results = { standing: [], later: renders.map(() => []), alone: [] };
  try {
    await makeAll({ loading, progress, lanes, results }, renders, options, onRender);
    await liveAlone({ progress, lanes, results }, renders);
    for (const render of listPostponed(renders, await progress.known))
      await progress.search(render);
  } finally {
    await lanes.end();
    await progress.leave(options.leaves);
  }
  const learned = await progress.known;
  const whole = results.standing.map((all) =>
    all.map((one, of) => withWidths(one, learned[of]!.settled)),
  );
  const later = flatMap(results.later, (all) => all);
  const known = whole.flat();
  return [...whole, ...later.map((all) => all.map((one) => keepNaturals(one, known)))];
}

/** A series that is being made. */
interface Making {
  loading: Loading;
  progress: Progress;
  lanes: Lanes;
  results: Results;
}

async function makeAll(
  { loading, progress, lanes, results }: Making,
  renders: readonly Render[],
  { getWants, windowsAlike, minute, watched, hands, posesOnly }: SeriesOptions,
  onRender: () => void,
): Promise<void> {
  const stuck = new Stuck();
  for (const [at, render] of renders.entries()) {
    const isOne = livesOn(render, renders);
    const wants = getWants(render);
    const lives = minute && isOne;
    const purpose: Purpose = {
      wants,
      hands: hands ? getHands(render, renders) : NO_HANDS,
      postpones: windowsAlike && canPostpone(render, renders.slice(at + 1)),
      shots: getShots(loading, posesOnly),
      region: null,
      minute: lives ? 'also' : 'no',
      watched: watched && isOne && wants.has('flashing'),
    };
    await lanes.enter();
    const making = progress.make(render, purpose, stuck.afterAll()).then((made) => {
      results.standing[at] = made.evidence;
      addLater(results, at, purpose, made);
      onRender();
      return made;
    });
    lanes.add(making);
    if (lives) stuck.add(making);
  }
  await lanes.finish();
}

function getShots({ pictures }: Loading, posesOnly: boolean): Purpose['shots'] {
  if (!pictures) return 'none';
  return posesOnly ? 'taken' : 'last';
}

/** Whether a page stood still within its minute: in what stands still in one window it is not waited for in another. */
class Stuck {
  #known: Promise<boolean> = Promise.resolve(false);

  add(making: Promise<Made>): void {
    const known = this.#known;
    const isStuck = making.then(({ stuck }) => stuck !== null).catch(() => false);
    this.#known = Promise.all([known, isStuck]).then((all) => all.some(Boolean));
  }

  /** Asks of those that were begun so far. */
  afterAll(): () => Promise<boolean> {
    const known = this.#known;
    return async () => !(await known);
  }
}

/** The minutes that could not be lived on where the page was read; one that stands still in one is waited for in another. */
async function liveAlone(
  { progress, lanes, results }: Omit<Making, 'loading'>,
  renders: readonly Render[],
): Promise<void> {
  while (results.alone.length > 0) {
    for (const { at, purpose } of results.alone.splice(0)) {
      await lanes.enter();
      const living = progress.makeAlone(renders[at]!, purpose).then((made) => {
        results.standing[at] = addMissing(results.standing[at]!, made);
        addLater(results, at, purpose, made);
      });
      lanes.add(living);
    }
    await lanes.finish();
  }
}

/** What was seen later, and whether that takes one more load. */
function addLater({ later, alone }: Results, at: number, purpose: Purpose, made: Made): void {
  later[at]!.push(...made.later.map(({ evidence }) => evidence));
  const minute = getOwnMinute(made);
  if (minute)
    alone.push({
      at,
      purpose: {
        ...purpose,
        hands: NO_HANDS,
        minute,
        watched: false,
        rested: made.rested,
        moved: made.moved,
      },
    });
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
function listPostponed(renders: readonly Render[], known: readonly Learned[]): Render[] {
  const keys = new Set(flatMap(known, ({ postponed }) => postponed.map(({ key }) => key)));
  return renders.filter((render) => keys.has(getRenderKey(render)));
}

function withWidths(one: Evidence, settled: ReadonlyMap<string, WidthsFact>): Evidence {
  const widths = settled.get(getRenderKey(one.render));
  return widths ? { ...one, widths } : one;
}
