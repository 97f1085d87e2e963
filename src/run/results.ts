import { createHash } from 'node:crypto';
import type { Evidence, Baseline } from '../core/evidence.js';
import { flatMap } from '../core/lists.js';
import { housePublished } from '../core/house/published.js';
import { toPlainHouse } from '../core/house/plain.js';
import { judgeSnippet, type JudgedReport, type Judgement } from '../core/judge/judge.js';
import type { Markup } from '../core/markup/markup.js';
import type { HouseReport, RunDocument, SnippetReport } from '../core/run.js';
import { countLevels, getOverall } from '../core/verdict.js';
import { CHECKS } from '../checks/index.js';
import type { Plan } from './request.js';
import { Spool } from './spool.js';
import { getVersion } from './version.js';

/** What of a plan results depend on. */
export type Judging = Omit<Plan, 'request' | 'root' | 'needs' | 'search'>;

/** What was found of a snippet. */
interface Result extends Omit<Judgement, 'report'> {
  report: SnippetReport;
}

/** What was found so far: in the order of the snippets, whatever finished first. */
export class Results {
  readonly #plan: Judging;
  readonly #spool = new Spool<Result>();

  constructor(plan: Judging) {
    this.#plan = plan;
  }

  /** Judges a snippet of the plan and puts away what was found. */
  async judge(
    index: number,
    markup: Markup,
    evidence: readonly Evidence[],
    baselines: ReadonlyMap<string, Baseline>,
  ): Promise<Result> {
    const { snippets, house, checks, startedAt, markupOnly } = this.#plan;
    const snippet = snippets[index]!;
    const { published } = snippet;
    const { report, notJudged } = judgeSnippet({
      snippet,
      markup,
      house: published ? housePublished(house, published) : house,
      evidence,
      baselines,
      checks,
      known: CHECKS,
      today: startedAt.toISOString().slice(0, 10),
      markupOnly,
    });
    const result = { report: addHash(report), notJudged };
    await this.#spool.put(index, result);
    return result;
  }

  /** The run as a document; unsure where a snippet is missing. */
  async makeDocument(engines: RunDocument['engines']): Promise<RunDocument> {
    const { startedAt } = this.#plan;
    const judgements: Result[] = [];
    for await (const judgement of this.#spool.read()) judgements.push(judgement);
    const snippets = judgements.map(({ report }) => report);
    const verdicts = snippets.map(({ verdict }) => verdict);
    const unfinished = snippets.length < this.#plan.snippets.length;
    return {
      schema: 'mivket-run-1',
      tool: { name: 'mivket', version: getVersion() },
      startedAt: startedAt.toISOString(),
      durationMs: Date.now() - startedAt.getTime(),
      house: reportHouse(this.#plan),
      engines,
      verdict: getOverall(unfinished ? ['unsure', ...verdicts] : verdicts),
      counts: countLevels(flatMap(snippets, ({ findings }) => findings)),
      notJudged: flatMap(judgements, ({ notJudged }) => notJudged),
      snippets,
    };
  }

  close(): Promise<void> {
    return this.#spool.close();
  }
}

function addHash({ name, path, published, ...rest }: JudgedReport): SnippetReport {
  const hash = createHash('sha256').update(rest.text).digest('hex');
  return { name, path, published, hash, ...rest };
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
