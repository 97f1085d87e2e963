import { cpus } from 'node:os';
import type { Check } from '../core/check.js';
import { badInput, ToolError } from '../core/errors.js';
import type { Interval } from '../core/evidence.js';
import { getSlotRange, type House, type Level, type Slot } from '../core/house/house.js';
import { getDefaultHouse } from '../core/house/read.js';
import type { ClearedText } from '../core/live/live.js';
import { ALL_WANTED, getWants, type Wants } from '../core/wants.js';
import type { Insert, Viewport } from '../core/render.js';
import type { Snippet } from '../core/snippet.js';
import { joinWords } from '../core/words/list.js';
import { suggest } from '../core/words/nearest.js';
import { chooseChecks, chooseSlots, chooseViewports } from './choose.js';

/** What is to be audited, and how. Paths are as the process sees them. */
export interface AuditRequest {
  /**
   * Names are unique; `path` says for the reader where a snippet comes from, `line` in which line of that it
   * begins; `slot` is the one slot of the house that it is for. With `published` it is the page at that
   * address, which is fetched: the text that is given counts for nothing.
   */
  snippets: readonly (Pick<Snippet, 'name' | 'text' | 'line' | 'indent' | 'slot' | 'published'> & {
    path?: string | null;
  })[];
  /** Left out: the house of somebody who has none. */
  house?: House;
  /** The text of the house's own page, with marked slots; null or left out: a neutral page. */
  ownPage?: string | null;
  /** The folder of that page's files. */
  root?: string | null;
  /** Names of slots of the house; left out: all. */
  slots?: readonly string[];
  /** In which ways code is put in; left out: as the house has it. */
  inserts?: readonly Insert[];
  /** Names of viewports of the house, and widths in px (`390`, or with a density `390@2`); left out: all of the house. */
  viewports?: readonly string[];
  widths?: readonly (number | string)[];
  /** Names of findings: only these, and not these. */
  only?: readonly string[];
  skip?: readonly string[];
  /** From which level on the verdict is to hold; left out: what the house says. */
  holdOn?: Level;
  /** The folder of a kept run: what it had already is left out. */
  newSince?: string;
  /** Reads the markup and renders nothing. */
  markupOnly?: boolean;
  /** Each host of others is silent in turn, to see what becomes of the page. */
  outage?: boolean;
  /** Lets nothing out but what the house serves and reroutes. */
  offline?: boolean;
  /** A browser's path, or `system` for an installed one; left out: the one that came along, else an installed one. */
  browser?: string;
  /** Whether windows between the viewports are tried too; left out: they are. */
  ranges?: boolean;
  /** How long one snippet may take as a whole, ms; left out: a minute. */
  timeLimit?: number;
  /** How many snippets are rendered at once; where there are fewer, so many loads of them. */
  jobs?: number;
  /** A folder to keep the whole run in: document and evidence. */
  keep?: string;
  /** A file (.har) to record all traffic to. */
  record?: string;
  /** A recording (.har) that answers, and nothing else. */
  replay?: string;
  /** It is told by events what stands in pages, and where what of `show` is in them is kept as shots: in the same folder. */
  standing?: { show: readonly ClearedText[] };
  /** A folder for the shots of all renders, PNGs named by their hashes; left out: none are taken. */
  shots?: string;
}

/** An earlier run: of each snippet, by its name, the findings by their keys. */
export interface Earlier {
  run: string;
  startedAt: string | null;
  findings: ReadonlyMap<string, ReadonlyMap<string, Level>>;
}

/** How a request's parts are called where one is wrong: `slots`, or `--slot`. */
export type Called = (part: keyof AuditRequest) => string;

/** All that is settled before the first snippet is looked at. */
export interface Plan {
  request: AuditRequest;
  house: House;
  ownPage: string | null;
  root: string | null;
  snippets: readonly Snippet[];
  checks: readonly Check[];
  slots: readonly Slot[];
  viewports: readonly Viewport[];
  /** Why nothing is to be rendered; null where there is. */
  markupOnly: string | null;
  /** What of the renders anybody reads. */
  wants: Wants;
  /** Which windows are tried besides; null: none. */
  search: Interval | null;
  /** Whether all of the house's slots, windows and ways are looked at, and whatever is asked for lets in. */
  whole: boolean;
  /** The run whose findings are left out; null: none are. */
  earlier: Earlier | null;
  startedAt: Date;
  /** When what is judged began to be rendered, where that was before. */
  renderedAt?: string | null;
}

/** Why nothing was rendered, where nothing was meant to be. */
export const MARKUP_ONLY = 'only the markup was read';

/** @throws ToolError where something is asked for that is not there */
export function planAudit(request: AuditRequest, called: Called): Plan {
  const { ownPage = null, root = null, holdOn } = request;
  const given = request.house ?? getDefaultHouse();
  const insert = request.inserts?.length ? [...new Set(request.inserts)] : given.insert;
  // Checks ask whether the page is the house's own.
  const own = ownPage !== null && { page: given.page ?? '' };
  const house = { ...given, insert, ...own, ...(holdOn && { holdOn }) };
  const checks = chooseChecks(request, called);
  // What is kept may be judged again by others.
  const wants = request.keep === undefined ? getWants(checks) : ALL_WANTED;
  const reads = checks.some(({ needs }) => needs.kinds.length > 0);
  const renders = reads || KEEPS.some((part) => request[part] !== undefined);
  const plan: Plan = {
    request,
    house,
    ownPage,
    root,
    snippets: request.snippets.map((one) => ({ ...one, path: one.path ?? null })),
    checks,
    slots: chooseSlots(house, request.slots, called),
    viewports: chooseViewports(house, request, called),
    markupOnly: request.markupOnly || !renders ? MARKUP_ONLY : null,
    wants,
    search:
      wants['as-is'].includes('widths') && request.ranges !== false
        ? toInterval(house.searchWidths)
        : null,
    whole: isWhole(request),
    earlier: null,
    startedAt: new Date(),
  };
  checkNames(plan);
  checkSlots(plan);
  if (plan.markupOnly === null) checkRooms(plan);
  return plan;
}

function isWhole({ slots, viewports, widths, inserts, ranges, offline }: AuditRequest): boolean {
  const narrowed = [slots, viewports, widths, inserts].some((one) => one?.length);
  return !narrowed && ranges !== false && offline !== true;
}

function toInterval([from, to]: House['searchWidths']): Interval {
  return { from, to };
}

/** What is made of renders besides findings. */
const KEEPS = ['keep', 'record', 'replay', 'shots'] as const;

function checkNames({ snippets }: Plan): void {
  const names = snippets.map(({ name }) => name);
  const twice = names.find((name, i) => names.indexOf(name) !== i);
  if (twice !== undefined) throw badInput(`Two snippets have the name "${twice}".`);
}

/** A slot that a snippet is for must be one of the house, and one that was asked for. */
function checkSlots({ snippets, slots, house }: Plan): void {
  for (const { name, slot } of snippets) {
    if (slot === undefined || slots.some((one) => one.name === slot)) continue;
    const known = house.slots.map((one) => one.name);
    const why = known.includes(slot)
      ? 'which was not asked for.'
      : `which the house does not have. ${suggest(slot, known)}`;
    throw new ToolError('unknown-slot', `The snippet "${name}" is for the slot "${slot}", ${why}`);
  }
}

/** Looks whether there is anything to render: a slot that was asked for, or every slot, may be at none of the widths. */
function checkRooms({ request, slots, viewports }: Plan): void {
  const isThere = (slot: Slot) => viewports.some(({ width }) => getSlotRange(slot, width) !== null);
  const missing = slots.filter((slot) => !isThere(slot));
  if (missing.length === 0 || (request.slots === undefined && missing.length < slots.length))
    return;
  const names = joinWords(missing.map(({ name }) => `"${name}"`));
  const widths = joinWords([...new Set(viewports.map(({ width }) => String(width)))]);
  const [slot, do_] = missing.length === 1 ? ['The slot', 'does'] : ['The slots', 'do'];
  throw new ToolError(
    'bad-option',
    `${slot} ${names} ${do_} not exist at ${widths} px: there is nothing to render.`,
  );
}

/** How many loads go on at once. */
export function getJobs({ jobs }: Pick<AuditRequest, 'jobs'>): number {
  // Much of a render is waiting, so there may be more than there are cores.
  return jobs ?? Math.min(8, Math.max(4, cpus().length));
}
