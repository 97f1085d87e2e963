import { getDay } from '../core/words/time.js';
import type { House } from '../core/house/house.js';
import { judgeSnippet } from '../core/judge/judge.js';
import { readMarkup } from '../core/markup/markup.js';
import type { Snippet } from '../core/snippet.js';
import { chooseChecks } from '../run/choose.js';
import { MARKUP_ONLY } from '../run/request.js';
import { called, type AuditFlags } from './options.js';
import type { ProgressBar } from './progress.js';

/** What the markup alone shows is on the screen before the browser has started; it has been told then. */
export function tellEarly(
  snippets: readonly Snippet[],
  house: House,
  { only, skip }: AuditFlags,
  progress: ProgressBar,
): true {
  const checks = chooseChecks({ ...(only && { only }), ...(skip && { skip }) }, called);
  const today = getDay(new Date());
  for (const snippet of snippets) {
    const { report } = judgeSnippet({
      snippet,
      markup: readMarkup(snippet.text, snippet),
      house,
      evidence: [],
      baselines: new Map(),
      checks,
      today,
      markupOnly: MARKUP_ONLY,
    });
    for (const finding of report.findings)
      progress.note(`${snippet.name}:${finding.where.line}  ${finding.id}: ${finding.message}`);
  }
  return true;
}
