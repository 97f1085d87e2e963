import { nameRoom } from '../core/render.js';
import type { Finding } from '../core/run.js';
import { countWords, joinWords } from '../core/words/list.js';
import type { Block } from './blocks.js';

/** What was measured: in which slots, at which widths. */
export interface MeasuredRow {
  /** '' where it was the same everywhere. */
  slot: string;
  width: string;
  what: string;
}

export interface MeasuredTable {
  rows: MeasuredRow[];
  /** How many more there are than the worst. */
  more: number;
}

const MOST = 4;

/** What was measured for a block: that of its gravest finding that measures anything; the worst rows. */
export function listMeasured({ main, also }: Block, places: number): MeasuredTable {
  const finding = [main, ...also].find(({ seen }) => seen.some(getWords)) ?? main;
  const told = new Map<string, Finding['seen']>();
  for (const one of [...finding.seen].sort(byWorst)) {
    const what = getWords(one);
    if (what === '') continue;
    const known = told.get(what);
    if (known) known.push(one);
    else told.set(what, [one]);
  }
  const rows = [...told].map(([what, seen]) => ({ ...formatPlaces(seen, places), what }));
  const shown = rows.slice(0, MOST);
  return { rows: shown, more: rows.length - shown.length };
}

/** Times are told as they were measured: no two runs have the same. */
function getWords({ what, measured: { waitedMs } }: Finding['seen'][number]): string {
  const waited = typeof waitedMs === 'number' ? `the page waited ${Math.round(waitedMs)} ms` : '';
  return [what, waited].filter(Boolean).join(', ');
}

/** What sticks out farthest comes first, else what has least room. */
function byWorst(a: Finding['seen'][number], b: Finding['seen'][number]): number {
  const of = ({ measured }: Finding['seen'][number], name: string) => Number(measured[name] ?? 0);
  return of(b, 'overhang') - of(a, 'overhang') || of(a, 'slotWidth') - of(b, 'slotWidth');
}

function formatPlaces(seen: Finding['seen'], places: number): Pick<MeasuredRow, 'slot' | 'width'> {
  if (seen.length === places && places > 1) return { slot: '', width: 'everywhere' };
  const slots = [...new Set(seen.map(nameRoom))];
  const widths = [...new Set(seen.map(({ width }) => width))].sort((a, b) => a - b);
  // Where not each slot was seen at each width, widths are told by slot.
  const whole = slots.length * widths.length === seen.length;
  if (whole) return { slot: joinWords(slots), width: `${widths.join(', ')} px` };
  const bySlot = slots.map((slot) => {
    const own = seen.filter((one) => nameRoom(one) === slot).map(({ width }) => width);
    return `${slot} at ${own.sort((a, b) => a - b).join(', ')}`;
  });
  return { slot: '', width: `${joinWords(bySlot)} px` };
}

/** `and 3 more rows`; '' where there are none. */
export function formatMore({ more }: MeasuredTable): string {
  return more > 0 ? `and ${countWords(more, 'more row')}` : '';
}

/** What is said of a waiver; '' where there is none. */
export function formatWaiver(waiver: Finding['waiver']): string {
  if (!waiver) return '';
  const by = waiver.by === null ? '' : ` (${waiver.by})`;
  return waiver.expired
    ? `ran out on ${waiver.until}, so it counts as none: ${waiver.reason}${by}`
    : `until ${waiver.until}: ${waiver.reason}${by}`;
}
