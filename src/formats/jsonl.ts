import type { NotJudged, RunDocument, SnippetReport } from '../core/run.js';
import { LINE_SCHEMA, type RunLine, type SnippetLine } from '../core/lines.js';
import { escapeJson } from './clean.js';

/** A finished snippet, on a line. */
export function formatSnippetLine(report: SnippetReport, notJudged: readonly NotJudged[]): string {
  return toLine({ schema: LINE_SCHEMA, type: 'snippet', ...report, notJudged: [...notJudged] });
}

/** What is told of the run as a whole, on the last line. */
export function formatRunLine({ snippets, notJudged: _, ...run }: RunDocument): string {
  return toLine({ ...run, schema: LINE_SCHEMA, type: 'run', snippets: snippets.length });
}

/** A run as JSON Lines: a snippet each, and the run itself at the end. */
export function* formatJsonLines(document: RunDocument): Generator<string, void, undefined> {
  for (const snippet of document.snippets) {
    const own = document.notJudged.filter((one) => one.snippet === snippet.name);
    yield formatSnippetLine(snippet, own);
  }
  yield formatRunLine(document);
}

function toLine(line: SnippetLine | RunLine): string {
  return `${escapeJson(JSON.stringify(line))}\n`;
}
