import stringWidth from 'string-width';
import type { RunDocument, SnippetReport } from '../core/run.js';
import { listBlocks } from './blocks.js';
import { nameWhole } from './corrected.js';
import { clean, cleanLine } from './clean.js';
import type { Paint } from './paint.js';
import {
  formatCounts,
  formatEngines,
  formatFits,
  formatHead,
  getMainReason,
  listEndNotes,
  listNotes,
  orderByWorst,
} from './summary.js';
import { formatBlock } from './text-block.js';
import { formatContacts } from './text-contacts.js';
import { formatFrames } from './text-frames.js';
import { formatGrid } from './text-grid.js';
import { formatLoads } from './text-loads.js';
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
    options.paint.faint(wrap(formatHead(document), options.width, '')),
    formatOverview(document, options),
    ...orderByWorst(document.snippets).map((snippet) => formatSnippet(snippet, document, options)),
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
  const blocks = listBlocks(snippet).map((block) => formatBlock(block, snippet, options));
  return [
    wrap(formatTitle(snippet, paint), options.width, '  ', ''),
    formatGrid(snippet, options),
    ...blocks,
    formatFrames(snippet, options),
    formatContacts(snippet, options),
    formatLoads(snippet, options),
    formatWhole(snippet, options),
    formatNotes(snippet, document, options),
  ]
    .filter(Boolean)
    .join('\n\n');
}

/** A line a snippet, the worst first, each with its reason. */
function formatOverview(document: RunDocument, { paint, width }: TextOptions): string {
  const { snippets } = document;
  if (snippets.length < 2) return '';
  const longest = Math.min(
    Math.max(...snippets.map(({ name }) => stringWidth(cleanLine(name)))),
    32,
  );
  return orderByWorst(snippets)
    .map((snippet) => {
      const name = cleanLine(snippet.name);
      const room = width - Math.max(longest, stringWidth(name)) - 10;
      const reason = cleanLine(getMainReason(snippet, document));
      const told = reason.length > room ? `${reason.slice(0, Math.max(room - 1, 10))}…` : reason;
      const space = ' '.repeat(Math.max(longest - stringWidth(name), 0));
      return `${name}${space}  ${stamp(snippet, paint)}${told ? ' '.repeat(8 - snippet.verdict.length) + told : ''}`;
    })
    .join('\n');
}

function stamp({ verdict }: SnippetReport, paint: Paint): string {
  const tone = { clear: paint.sound, hold: paint.blocker, unsure: paint.concern }[verdict];
  return tone(verdict.toUpperCase());
}

function formatTitle(snippet: SnippetReport, paint: Paint): string {
  const fits = formatFits(snippet);
  const counted = formatCounts(snippet);
  return `${paint.strong(cleanLine(snippet.name))}  ${stamp(snippet, paint)}${counted}${paint.faint(fits && ` · ${fits}`)}`;
}

/** So many lines are still read on a terminal. */
const MOST_LINES = 12;
const LONGEST_LINE = 400;

/** The whole snippet with all cures, where more than one was put in. */
function formatWhole(snippet: SnippetReport, { paint }: TextOptions): string {
  const { mended, causes } = snippet;
  if (mended === null || causes.filter(({ mend }) => mend).length < 2) return '';
  const lines = clean(mended.trim()).split('\n');
  if (lines.length > MOST_LINES || lines.some((line) => line.length > LONGEST_LINE))
    return paint.faint(`  ${nameWhole(snippet)}: in the HTML and JSON reports.`);
  // Not wrapped: it is there to be copied.
  return [paint.faint(`  ${nameWhole(snippet)}:`), ...lines.map((line) => `    ${line}`)].join(
    '\n',
  );
}

function formatNotes(
  snippet: SnippetReport,
  document: RunDocument,
  { width, paint }: TextOptions,
): string {
  const lines = listNotes(snippet, document).map((line) => wrap(cleanLine(line), width, '  '));
  return lines.length > 0 ? paint.faint(lines.join('\n')) : '';
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
  const notes = [...listEndNotes(document), notSeen].map((one) => wrap(cleanLine(one), width, ''));
  return `${paint.strong(sum)}\n${paint.faint(notes.join('\n'))}`;
}
