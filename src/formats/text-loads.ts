import stringWidth from 'string-width';
import { flatMap } from '../core/lists.js';
import type { SnippetReport } from '../core/run.js';
import { isDeep, listLoadRows, sumLoads, type LoadRow } from './loads.js';
import type { TextOptions } from './text.js';

/** So many are still read on a terminal. */
const MOST = 12;
const INDENT = 4;
/** The least that is shown of an address. */
const LEAST = 16;

/** Who asks whom, where something that came asks for more: for all else the hosts say it. */
export function formatLoads(snippet: SnippetReport, { paint, width }: TextOptions): string {
  const { loads } = snippet;
  if (!loads || !isDeep(snippet)) return '';
  const rows = flatMap(listLoadRows(loads), (row) => flatten(row, 0));
  const starts = Math.max(...rows.map(({ where }) => where.length));
  const lines = rows.slice(0, MOST).map(({ where, depth, name, what }) => {
    const start = `${' '.repeat(INDENT)}${where.padEnd(starts)}  ${'  '.repeat(depth)}`;
    const room = Math.max(width - start.length - stringWidth(what) - 2, LEAST);
    return `${start}${cut(name, room)}  ${paint.faint(what)}`;
  });
  const more = rows.length - MOST;
  const rest = more > 0 ? [paint.faint(`    and ${more} more: in the HTML and JSON reports`)] : [];
  return [`  Who asks whom: ${sumLoads(loads)}`, ...lines, ...rest].join('\n');
}

function flatten(row: LoadRow, depth: number): (LoadRow & { depth: number })[] {
  return [{ ...row, depth }, ...flatMap(row.under, (one) => flatten(one, depth + 1))];
}

/** The host stands first, the file last: what is between can be done without. */
function cut(name: string, room: number): string {
  if (stringWidth(name) <= room) return name;
  const end = Math.floor((room - 1) / 2);
  return `${name.slice(0, room - 1 - end)}…${name.slice(-end)}`;
}
