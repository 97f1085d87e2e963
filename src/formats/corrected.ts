import { applyEdits } from '../core/mend/apply.js';
import { mapPresent } from '../core/lists.js';
import type { Finding, SnippetReport } from '../core/run.js';
import { counts } from '../core/verdict.js';
import { joinWords } from '../core/words/list.js';
import { clean } from './clean.js';

/** So many causes are named. */
const MOST_CAUSES = 8;

/** What stands over the whole snippet with all cures: of what is left for a person to decide it is not silent. */
export function nameWhole({ causes, findings }: SnippetReport): string {
  const counting = new Set(mapPresent(findings, (one) => (counts(one) ? one.cause : null)));
  const open = causes.filter(({ number, mend }) => mend === null && counting.has(number));
  if (open.length === 0) return 'The whole snippet, corrected';
  const named = open.slice(0, MOST_CAUSES).map(({ number }) => String(number));
  const more = open.length - named.length;
  const list = joinWords(more > 0 ? [...named, `${more} more`] : named);
  return `The whole snippet, corrected as far as that is certain; left to decide: ${list}`;
}

type Edits = NonNullable<Finding['mend']>;

/** A longer line is cut around what changes. */
const LONGEST_LINE = 400;
const AROUND = 120;
/** So many lines of one change are told. */
const MOST_LINES = 6;

/** How a change is told. */
export interface Corrected {
  /** What is put behind the end; the lines are that alone. */
  atEnd: boolean;
  /** The lines that it changes, as they read afterwards. */
  lines: string[];
}

/** The lines that edits change, each cut around what changes where it is long. */
export function formatCorrected(text: string, edits: Edits): Corrected {
  const [only] = edits;
  if (only && edits.length === 1 && only.offset >= text.trimEnd().length)
    return { atEnd: true, lines: [clean(only.text.trim())] };
  const mended = applyEdits(text, edits);
  const lines = new Map<number, { from: number; to: number }>();
  let shift = 0;
  for (const edit of [...edits].sort((a, b) => a.offset - b.offset)) {
    const from = edit.offset + shift;
    const to = from + edit.text.length;
    shift += edit.text.length - (edit.endOffset - edit.offset);
    const line = mended.lastIndexOf('\n', from - 1) + 1;
    const known = lines.get(line);
    lines.set(line, { from: known?.from ?? from, to });
  }
  const told = [...lines].map(([start, span]) => cutLine(mended, start, span));
  const shown = told.slice(0, MOST_LINES);
  return { atEnd: false, lines: told.length > shown.length ? [...shown, '…'] : shown };
}

function cutLine(text: string, start: number, { from, to }: { from: number; to: number }): string {
  const next = text.indexOf('\n', Math.max(start, to));
  const end = next < 0 ? text.length : next;
  const line = text.slice(start, end);
  if (line.trim().length <= LONGEST_LINE) return clean(line.trim());
  const first = Math.max(start, from - AROUND);
  const last = Math.min(end, Math.min(to, first + LONGEST_LINE) + AROUND);
  const piece = text.slice(first, last).trim();
  return clean(`${first > start ? '…' : ''}${piece}${last < end ? '…' : ''}`);
}
