import { flatMap } from './lists.js';
import type { NotJudged, RunDocument, SnippetReport } from './run.js';
import { countLevels, getOverall } from './verdict.js';

/** What was found of a snippet, and what was not judged of it. */
export interface JudgedSnippet {
  report: SnippetReport;
  notJudged: readonly NotJudged[];
}

/** The run document of snippets that were looked at in several runs of one house. @param latest the last of the runs */
export function joinJudged(latest: RunDocument, judged: readonly JudgedSnippet[]): RunDocument {
  const snippets = judged.map(({ report }) => report);
  return {
    ...latest,
    verdict: getOverall(snippets.map(({ verdict }) => verdict)),
    counts: countLevels(flatMap(snippets, ({ findings }) => findings)),
    notJudged: flatMap(judged, (one) => [...one.notJudged]),
    // Each run has seen a part of what they may be for.
    idleWaivers: [],
    snippets,
  };
}
