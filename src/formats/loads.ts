import { groupBy, mapPresent } from '../core/lists.js';
import type { LoadReport, LoadsReport } from '../core/loads-report.js';
import { formatWire } from '../core/measure/units.js';
import type { SnippetReport } from '../core/run.js';
import { countWords } from '../core/words/list.js';
import { cleanLine } from './clean.js';

/** What was asked for, and below it what that asked for in its turn. */
export interface LoadRow {
  /** Where it begins in the snippet, as far as that is known; '' where something else asked. */
  where: string;
  /** Its address, clean; of several alike their host. */
  name: string;
  /** What it is, and how it went. */
  what: string;
  under: LoadRow[];
}

/** As a tree: what the snippet itself asks for, and what each of these does. Those of a kind that ask for nothing are one. */
export function listLoadRows({ requests }: LoadsReport): LoadRow[] {
  const under = groupBy(requests.keys(), (i) => requests[i]!.by);
  const list = (of: number | null): LoadRow[] => {
    const groups = groupBy(under.get(of) ?? [], (i) => getGroup(requests[i]!, under.has(i), i));
    return mapPresent(groups.values(), ([first, ...rest]) =>
      tell([requests[first!]!, ...rest.map((i) => requests[i]!)], list(first!)),
    );
  };
  return list(null);
}

/** Whether anything was asked for by what came, and not by the snippet's own text. */
export function isDeep({ loads }: Pick<SnippetReport, 'loads'>): boolean {
  return loads !== null && loads.requests.some(({ by }) => by !== null);
}

/** All of it together. */
export function sumLoads({ slot, viewport, requests }: LoadsReport): string {
  return `${countWords(requests.length, 'request')} in ${cleanLine(slot)}, ${cleanLine(viewport)}`;
}

function getGroup(
  { host, type, status, failed, line }: LoadReport,
  asks: boolean,
  i: number,
): string {
  return asks ? String(i) : JSON.stringify([host, type, status, failed, line]);
}

/** One, or several that are alike. */
function tell(all: readonly [LoadReport, ...LoadReport[]], under: LoadRow[]): LoadRow {
  const [one] = all;
  const many = all.length > 1;
  const wire = all.reduce((sum, { wire }) => sum + wire, 0);
  const type = many ? `${all.length} × ${TYPES[one.type]}` : TYPES[one.type];
  return {
    where: tellWhere(one),
    name: cleanLine(many ? one.host : shortenAddress(one.address)),
    what: [type, ...(wire > 0 ? [formatWire(wire)] : []), ...tellEnd(one)].join(', '),
    under,
  };
}

function tellWhere({ line, by }: LoadReport): string {
  return by === null ? `line ${line ?? '?'}` : '';
}

/** How it went where it did not simply come, and for how long a browser keeps it where that is short. */
function tellEnd({ status, failed, fresh }: LoadReport): string[] {
  if (failed !== null) return [failed.replaceAll('-', ' ')];
  if (status !== null && status >= 300) return [`answered with ${status}`];
  return fresh === 0 ? ['never kept'] : [];
}

/** Without its scheme and query: whose it is stands first. */
function shortenAddress(address: string): string {
  const { host, pathname, search } = new URL(address);
  return `${host}${pathname === '/' ? '' : pathname}${search === '' ? '' : '?…'}`;
}

const TYPES: Record<LoadReport['type'], string> = {
  document: 'page',
  style: 'style sheet',
  script: 'script',
  picture: 'picture',
  font: 'font',
  film: 'film or sound',
  track: 'captions',
  data: 'data',
  socket: 'open line',
  stream: 'open line',
  ping: 'report',
  prefetch: 'fetched early',
  manifest: 'manifest',
  other: 'other',
};
