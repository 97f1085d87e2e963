import { getDay } from '../core/words/time.js';
import { flatMap } from '../core/lists.js';
import { housePublished } from '../core/house/published.js';
import { toPlainHouse } from '../core/house/plain.js';
import {
  judgeSnippet,
  leaveUnjudged,
  type Judged,
  type JudgedReport,
  type Judgement,
} from '../core/judge/judge.js';
import type { Check } from '../core/check.js';
import type { CheckReport, HouseReport, RunDocument, SnippetReport } from '../core/run.js';
import { countLevels, getOverall } from '../core/verdict.js';
import { CHECKS } from '../checks/index.js';
import { listIdleWaivers } from '../core/judge/waivers.js';
import { makeLost, OWN_FAULT } from '../render/bounds/lost.js';
import type { Faults } from './faults.js';
import type { Measured } from './measure.js';
import type { Plan } from './request.js';
import { Spool } from './spool.js';
import { hashOf } from './hash.js';
import { getTool } from './version.js';

/** What of a plan results depend on. */
export type Judging = Omit<Plan, 'request' | 'root' | 'wants' | 'search'>;

/** What was found of a snippet. */
interface Result extends Omit<Judgement, 'report' | 'broken'> {
  report: SnippetReport;
}

/** What was found so far: in the order of the snippets, whatever finished first. */
export class Results {
  readonly #plan: Judging;
  readonly #spool = new Spool<Result>();

  readonly #faults: Faults;

  /** @param faults takes what breaks down over a snippet */
  constructor(plan: Judging, faults: Faults) {
    this.#plan = plan;
    this.#faults = faults;
  }

  /**
   * Judges a snippet of the plan and puts away what was found. Where judging breaks down over what was measured,
   * it is judged by its markup; where that does too, it is said to be unjudged.
   */
  async judge(index: number, measured: Measured | null): Promise<Result> {
    const { snippets, house, checks, startedAt, markupOnly, earlier } = this.#plan;
    const snippet = snippets[index]!;
    const { published } = snippet;
    const before = earlier?.findings.get(snippet.name);
    const about = {
      ...{ snippet, checks, known: CHECKS, markupOnly },
      house: published ? housePublished(house, published) : house,
      today: getDay(startedAt),
      ...(before && { before }),
    };
    const { report, notJudged, broken } =
      (measured && this.#attempt({ ...about, ...measured })) ??
      (measured && this.#attempt({ ...about, ...forget(measured) })) ??
      leaveUnjudged(about, OWN_FAULT);
    for (const { id, error } of broken) this.#faults.add(error, `\`${id}\` of ${snippet.name}`);
    const result = { report: addHash(report), notJudged };
    await this.#spool.put(index, result);
    return result;
  }

  #attempt(judged: Judged): Judgement | null {
    try {
      return judgeSnippet(judged);
    } catch (error) {
      this.#faults.add(error, `the judging of ${judged.snippet.name}`);
      return null;
    }
  }

  /** The run as a document; unsure where a snippet is missing. */
  async makeDocument(engines: RunDocument['engines']): Promise<RunDocument> {
    const { startedAt, house, earlier, whole, markupOnly } = this.#plan;
    const { renderedAt = markupOnly === null ? startedAt.toISOString() : null } = this.#plan;
    const judgements: Result[] = [];
    for await (const judgement of this.#spool.read()) judgements.push(judgement);
    const snippets = judgements.map(({ report }) => report);
    const verdicts = snippets.map(({ verdict }) => verdict);
    const unfinished = snippets.length < this.#plan.snippets.length;
    const checks = CHECKS.map((check) => reportCheck(check, this.#plan));
    const notJudged = flatMap(judgements, (one) => one.notJudged);
    const waived = { house, snippets, checks, notJudged, today: getDay(startedAt) };
    return {
      schema: 'mivket-run-1',
      tool: getTool(),
      startedAt: startedAt.toISOString(),
      renderedAt,
      durationMs: Date.now() - startedAt.getTime(),
      house: reportHouse(this.#plan),
      engines,
      verdict: getOverall(unfinished ? ['unsure', ...verdicts] : verdicts),
      counts: countLevels(flatMap(snippets, ({ findings }) => findings)),
      checks,
      notJudged,
      since: earlier && { run: earlier.run, startedAt: earlier.startedAt },
      // What is left out, or was not looked at, may be what a waiver is for.
      idleWaivers: earlier || unfinished || !whole ? [] : listIdleWaivers(waived),
      snippets,
    };
  }

  close(): Promise<void> {
    return this.#spool.close();
  }
}

/** The markup, with nothing seen. */
function forget({ markup, evidence, baselines }: Measured): Measured {
  const lost = evidence.map(({ render, of }) => makeLost(render, of, OWN_FAULT));
  return { markup, evidence: lost, baselines };
}

function addHash({ name, path, published, ...rest }: JudgedReport): SnippetReport {
  const hash = hashOf(rest.text);
  return { name, path, published, hash, ...rest };
}

/** A finding that there is, and whether it was looked for. */
function reportCheck(
  { id, title, subject, level, decided, standard }: Check,
  { house, checks }: Judging,
): CheckReport {
  const stated = house.levels[id] ?? level;
  const ran = stated !== 'off' && checks.some((one) => one.id === id);
  return { id, title, subject, level: stated, decided, standard, ran };
}

/** As much of the house as reports tell of. */
function reportHouse({ house, ownPage, slots, viewports }: Judging): HouseReport {
  const plain = toPlainHouse({ ...house, slots: [...slots] }) as { slots: HouseReport['slots'] };
  return {
    file: house.file,
    ownPage: ownPage !== null,
    slots: plain.slots.map(({ name, align, ranges }) => ({ name, align, ranges })),
    viewports: [...viewports],
    holdOn: house.holdOn,
  };
}
