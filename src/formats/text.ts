import type { RunDocument, SnippetReport } from '../core/run.js';
import { formatPixels } from '../core/measure/units.js';
import { clean, cleanLine } from './clean.js';
import type { Paint } from './paint.js';
import { countPlaces, formatCounts, formatEngines, formatHead } from './summary.js';
import { formatFinding, LONGEST_LINE } from './text-finding.js';
import { formatGrid } from './text-grid.js';
import { wrap } from './wrap.js';

/** What the text report needs besides the run document. */
export interface TextOptions {
  paint: Paint;
  /** Columns there are. */
  width: number;
}

/** The report for a terminal: one block a snippet, and at the end what was not seen. */
export function formatText(document: RunDocument, options: TextOptions): string {
  const blocks = [
    options.paint.faint(wrap(formatHead(document.house), options.width, '')),
    ...document.snippets.map((snippet) => formatSnippet(snippet, document, options)),
    formatEnd(document, options),
  ];
  return `${blocks.filter(Boolean).join('\n\n')}\n`;
}

function formatSnippet(
  snippet: SnippetReport,
  document: RunDocument,
  options: TextOptions,
): string {
  const { paint } = options;
  const findings = snippet.findings.map((finding, i) =>
    formatFinding(finding, i + 1, snippet.text, options, countPlaces(snippet)),
  );
  const missed = document.notJudged.filter((one) => one.snippet === snippet.name);
  const notes = missed.length > 0 ? [formatNotJudged(missed, options)] : [];
  return [
    wrap(formatTitle(snippet, paint), options.width, '  ', ''),
    formatGrid(snippet, options),
    ...findings,
    formatWhole(snippet, options),
    ...notes,
  ]
    .filter(Boolean)
    .join('\n\n');
}

function formatTitle(snippet: SnippetReport, paint: Paint): string {
  const stamp = { clear: paint.sound, hold: paint.blocker, unsure: paint.concern }[snippet.verdict];
  const fits = snippet.fitsFrom === null ? '' : ` · fits from ${formatPixels(snippet.fitsFrom)}`;
  const counted = formatCounts(snippet);
  return `${paint.strong(cleanLine(snippet.name))}  ${stamp(snippet.verdict.toUpperCase())}${counted}${paint.faint(fits)}`;
}

/** So many lines are still read on a terminal. */
const MOST_LINES = 12;

/** The whole snippet with all cures, where more than one was put in. */
function formatWhole({ mended, findings }: SnippetReport, { paint }: TextOptions): string {
  if (mended === null || findings.filter(({ mend }) => mend).length < 2) return '';
  const lines = clean(mended.trim()).split('\n');
  if (lines.length > MOST_LINES || lines.some((line) => line.length > LONGEST_LINE))
    return paint.faint('  The whole snippet, corrected, is in the HTML and JSON reports.');
  // Not wrapped: it is there to be copied.
  return [
    paint.faint('  The whole snippet, corrected:'),
    ...lines.map((line) => `    ${line}`),
  ].join('\n');
}

function formatNotJudged(missed: RunDocument['notJudged'], { width, paint }: TextOptions): string {
  const byReason = new Map<string, string[]>();
  for (const { id, why } of missed) byReason.set(why, [...(byReason.get(why) ?? []), id]);
  const lines = [...byReason].map(([why, ids]) =>
    wrap(`Not judged, because ${cleanLine(why)}: ${ids.join(', ')}.`, width, '  '),
  );
  return paint.faint(lines.join('\n'));
}

function formatEnd(document: RunDocument, { paint, width }: TextOptions): string {
  const { snippets, engines } = document;
  const of = (verdict: string) => snippets.filter((snippet) => snippet.verdict === verdict).length;
  const parts = (['hold', 'unsure', 'clear'] as const)
    .filter((v) => of(v) > 0)
    .map((v) => `${of(v)} ${v}`);
  const sum = `${snippets.length} ${snippets.length === 1 ? 'snippet' : 'snippets'}: ${parts.join(', ') || 'none finished'}.`;
  const engine = formatEngines(engines);
  const notSeen = engine
    ? `Seen in ${engine} alone: not in Firefox or Safari, not signed in, not after a click.`
    : 'Nothing was rendered: only the markup was read.';
  return `${paint.strong(sum)}\n${paint.faint(wrap(notSeen, width, ''))}`;
}
