import type { Baseline, Evidence } from '../core/evidence.js';
import { judgeSnippet } from '../core/judge/judge.js';
import { readMarkup } from '../core/markup/markup.js';
import type { Plan, Results } from './report.js';

/**
 * Judges a snippet of the plan and puts what was found in its place in the results.
 * @param markupOnly why nothing was rendered, where nothing was meant to be
 */
export function judge(
  { snippets, house, checks, today }: Plan,
  results: Results,
  index: number,
  evidence: readonly Evidence[],
  baselines: ReadonlyMap<string, Baseline>,
  markupOnly: string | null,
): void {
  const snippet = snippets[index]!;
  const markup = readMarkup(snippet.text);
  const given = { snippet, markup, house, evidence, baselines, checks, today, markupOnly };
  const judged = judgeSnippet(given);
  results.reports[index] = judged.report;
  results.notJudged[index] = judged.notJudged;
  results.sights[index] = evidence.map(({ picture }, i) => ({
    shot: picture ?? null,
    marks: judged.marks[i] ?? [],
  }));
}
