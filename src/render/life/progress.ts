import type { Evidence, WidthsFact } from '../../core/evidence.js';
import { within } from '../bounds/limit.js';
import { getRenderKey, type Render } from '../../core/render.js';
import {
  loseAll,
  QUICK,
  UNHURRIED,
  type Job,
  type Manner,
  type Purpose,
  type Subject,
} from './job.js';
import { NOTHING, type Learned } from './learned.js';
import type { Loading } from './load-windows.js';
import { makeRender, NOT_LIVED, type Made } from './make-render.js';
import type { Booth } from './booths.js';

/** So long a render waits for what those before it may teach, ms: a page goes on meanwhile. */
const LESSON = 15_000;

/** How far the renders of one page have come: what the next ones go by, and where they can be made. */
export class Progress {
  readonly #loading: Loading;
  readonly #subject: Subject;
  #manner: Manner = UNHURRIED;
  /** What is known by the renders that were begun so far, once it is. */
  #known: Promise<readonly Learned[]>;
  /** Places in which nothing goes on at present. */
  #idle: Booth[] = [];

  /** @param apart several may be made side by side */
  constructor(loading: Loading, subject: Subject, apart: boolean) {
    // Who holds a booth cannot wait for one that is given up when all its booths are free.
    const enter: Loading['enter'] = (wanted) =>
      loading.enter(wanted === 'shared' ? 'urgent' : wanted);
    this.#loading = apart ? { ...loading, enter } : loading;
    this.#subject = subject;
    this.#known = Promise.resolve(subject.texts.map(() => NOTHING));
  }

  get known(): Promise<readonly Learned[]> {
    return this.#known;
  }

  /**
   * One more; those before may go on meanwhile.
   * @param mayLive whether its minute is lived on after all
   */
  make(render: Render, purpose: Purpose, mayLive?: () => Promise<boolean>): Promise<Made> {
    const before = this.#known;
    let onLearned!: (learned: readonly Learned[]) => void;
    const told = new Promise<readonly Learned[]>((resolve) => (onLearned = resolve));
    const learn = () => inTime(before);
    const made = this.#make(render, purpose, { learn, onLearned, mayLive });
    const over = made.then(
      ({ learned }) => learned ?? before,
      () => before,
    );
    this.#known = Promise.race([told, over]);
    return made;
  }

  /** One that teaches nothing. */
  async makeAlone(render: Render, purpose: Purpose): Promise<Made> {
    return this.#make(render, purpose, { known: await this.#known });
  }

  /** Searches the windows of a render in a load of its own. */
  async search(render: Render): Promise<void> {
    const known = await this.#known;
    const { evidence, learned } = await this.#make(render, QUICK, { known });
    this.#known = Promise.resolve(settle(learned ?? known, render, evidence));
  }

  async #make(render: Render, purpose: Purpose, lessons: Partial<Job>): Promise<Made> {
    const { budget, signal } = this.#loading;
    signal?.throwIfAborted();
    const { hanging: profile } = this.#manner;
    const job: Job = {
      ...{ ...this.#manner, ...purpose, profile, subject: this.#subject, render },
      ...{ baseline: null, known: [], ...lessons },
    };
    if (budget.isOver) {
      const evidence = loseAll(job, budget.words);
      return { evidence, ...NOT_LIVED, learned: null, booth: null, careful: job.careful };
    }
    const made = await makeRender(this.#loading, this.#idle.pop() ?? null, job);
    this.#note(made);
    // Where time was moved on nothing else can be loaded.
    if (made.booth?.page.aged) await made.booth.leave('used');
    else if (made.booth) this.#idle.push(made.booth);
    return made;
  }

  #note({ evidence, careful }: Made): void {
    const [{ scripts, page }] = evidence as [Evidence];
    const { hanging, restless } = this.#manner;
    this.#manner = {
      ...this.#manner,
      careful: this.#manner.careful || careful,
      hanging: hanging || scripts.hung !== null,
      restless: restless || page.stillMoving.length > 0,
    };
  }

  /** Leaves all booths. */
  async leave(how: 'clean' | 'used'): Promise<void> {
    for (const booth of this.#idle.splice(0)) await booth.leave(how);
  }
}

async function inTime(before: Promise<readonly Learned[]>): Promise<readonly Learned[]> {
  return (await within(before, LESSON)) ?? [];
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
    return { ...one, settled: new Map<string, WidthsFact>([...one.settled, [key, widths]]) };
  });
}
