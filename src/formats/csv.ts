import { stringify } from 'csv-stringify/sync';
import { nameRoom } from '../core/render.js';
import type { Finding, RunDocument, SnippetReport } from '../core/run.js';
import { counts } from '../core/verdict.js';
import { flatMap } from '../core/lists.js';
import { cleanLine } from './clean.js';

type Cell = string | number | null;

/** The columns, each with what stands in it; of a snippet without findings only what is told of the snippet itself. */
const COLUMNS: readonly [string, (snippet: SnippetReport, finding: Finding | null) => Cell][] = [
  ['snippet', ({ name }) => name],
  ['path', ({ path }) => path],
  ['verdict', ({ verdict }) => verdict],
  ['level', (_, one) => one && one.level],
  ['finding', (_, one) => one && one.id],
  ['line', (_, one) => one && one.where.line],
  ['column', (_, one) => one && one.where.column],
  ['what', (_, one) => one && one.message],
  ['visitors', (_, one) => one && one.notice],
  ['change', (_, one) => one && one.cure],
  ['standard', (_, one) => one && one.standard],
  ['seen', (_, one) => one && listSeen(one)],
  ['confirmed', (_, one) => one && (one.confirmed ? 'yes' : 'no')],
  ['waived', (_, one) => one && (counts(one) ? 'no' : 'yes')],
  ['key', (_, one) => one && one.key],
];

/** A table with a row for each finding (RFC 4180); cells that a spreadsheet would take for formulas are not. */
export function formatCsv({ snippets }: Pick<RunDocument, 'snippets'>): string {
  const rows = flatMap(snippets, (snippet) => {
    const found = snippet.findings.length > 0 ? snippet.findings : [null];
    return found.map((finding) => COLUMNS.map(([, get]) => makePlain(get(snippet, finding))));
  });
  const head = COLUMNS.map(([name]) => name);
  return stringify([head, ...rows], { escape_formulas: true, record_delimiter: 'windows' });
}

/** The windows it was seen in, as `column 320; column 390`. */
function listSeen({ seen }: Finding): string {
  const places = seen.map((one) => `${nameRoom(one)} ${one.width}`);
  return [...new Set(places)].join('; ');
}

function makePlain(cell: Cell): Cell {
  return typeof cell === 'string' ? cleanLine(cell) : cell;
}
