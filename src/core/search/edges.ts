import {
  FITTING_KINDS,
  isMeasured,
  type Evidence,
  type Interval,
  type WideSpan,
  type WidthSpan,
} from '../evidence.js';
import { flatMap } from '../lists.js';
import { listTooWide } from '../measure/too-wide.js';
import { getPlace, isOneKind, nameRoom } from '../render.js';
import { covers, getElementKey, getWide } from './spans.js';

/** So many loads a slot are made for edges. */
const MOST = 12;
/** So many guesses are looked at of which no window that was rendered shows anything. */
const MOST_GUESSES = 3;

/** One thing that is too wide in several windows. */
type Thing = Pick<WidthSpan, 'for' | 'element'>;

/** What was seen of a window: by how many px each thing is too wide. */
interface Known {
  width: number;
  /** The slot's, px. */
  room: number;
  over: Map<string, { thing: Thing; overhang: number }>;
}

/** What a slot's edges are looked for among. */
export interface EdgesAbout {
  /** All renders of the snippet. */
  all: readonly Evidence[];
  /** Where the page is wider than the window without the snippet. */
  wide: readonly WideSpan[];
}

/**
 * The windows to load next for what a copy only guesses: where something is too wide the most, both sides of each
 * edge of what is seen to be, and where it is not so, half way to the nearest in which it is not. Where nothing is
 * guessed to be, the narrowest.
 * @param loads those that were loaded for it so far
 */
export function planEdges(
  one: Evidence,
  around: EdgesAbout,
  loads: readonly Evidence[] = [],
): number[] {
  if (!one.widths.guessed) return [];
  const known = listKnown(one, around, loads);
  const seen = new Set(flatMap(known, ({ over }) => [...over.keys()]));
  const [spans, guesses] = partition(one.widths.spans, (span) => seen.has(getKey(span)));
  const edges = flatMap(spans, ({ from, to }) => [from, to]);
  // The window beyond an edge only where the edge itself was right.
  const beyond = flatMap(spans, (span) => [
    ...(isOver(known, span.from, getKey(span)) ? [span.from - 1] : []),
    ...(isOver(known, span.to, getKey(span)) ? [span.to + 1] : []),
  ]);
  const first = spans.length + guesses.length > 0 ? [] : listNarrowest(one);
  const tops = [...first, ...guesses.slice(0, MOST_GUESSES).map(({ at }) => at)];
  const wanted = [...tops, ...edges, ...beyond, ...flatMap(seen, (key) => halve(known, key))];
  const isSearched = (width: number) =>
    one.widths.searched.some((interval) => covers(interval, width));
  const isKnown = (width: number) => known.some((other) => other.width === width);
  const fresh = wanted.filter((width) => isSearched(width) && !isKnown(width));
  // What is guessed is looked at first: it is mostly right.
  const [next = []] = [tops, edges, beyond, fresh]
    .map((some) => fresh.filter((width) => some.includes(width)))
    .filter((some) => some.length > 0);
  return [...new Set(next)].slice(0, MOST - loads.length);
}

/** The narrowest window that was searched. */
function listNarrowest({ widths }: Evidence): number[] {
  const from = widths.searched.map((interval) => interval.from);
  return from.length > 0 ? [Math.min(...from)] : [];
}

function partition<T>(all: readonly T[], fits: (one: T) => boolean): [T[], T[]] {
  return [all.filter(fits), all.filter((one) => !fits(one))];
}

function isOver(known: readonly Known[], width: number, key: string): boolean {
  return known.some((one) => one.width === width && one.over.has(key));
}

/** Half way between two windows that follow on each other and differ in a thing. */
function halve(known: readonly Known[], key: string): number[] {
  return flatMap(known, (a, i) => {
    const b = known[i + 1];
    const differs = b !== undefined && a.over.has(key) !== b.over.has(key);
    return differs && b.width - a.width > 1 ? [Math.floor((a.width + b.width) / 2)] : [];
  });
}

/** All windows of which something is known, from the narrowest on. */
function listKnown(
  one: Evidence,
  { all, wide }: EdgesAbout,
  loads: readonly Evidence[],
): readonly Known[] {
  return flatMap([...all.filter((other) => isSibling(one, other)), ...loads], (other) =>
    look(other, wide),
  ).sort((a, b) => a.width - b.width);
}

/** Puts what loads have shown in the place of what was guessed. */
export function settleEdges(
  one: Evidence,
  around: EdgesAbout,
  loads: readonly Evidence[],
): Evidence {
  const { widths } = one;
  if (!widths.guessed) return one;
  const known = listKnown(one, around, loads);
  const things = new Map(
    flatMap(known, ({ over }) => [...over].map(([key, { thing }]) => [key, thing] as const)),
  );
  const spans = flatMap(widths.searched, (interval) =>
    flatMap(things, ([key, thing]) => listSpans(known, key, thing, interval)),
  );
  const rooms = known
    .filter(({ room }) => room > 0)
    .map(({ room, over }) => ({ from: room, to: room, fits: over.size === 0 }));
  const tried = loads.length;
  const searched = tried > 0 ? widths.searched : [];
  return { ...one, widths: { ...widths, guessed: false, searched, tried, spans, rooms } };
}

/** From the first of some windows to the last, all of which show a thing; exact where the next one does not. */
function listSpans(
  all: readonly Known[],
  key: string,
  thing: Thing,
  interval: Interval,
): WidthSpan[] {
  const known = all.filter(({ width }) => covers(interval, width));
  const holds = (at: number) => known[at]?.over.has(key) ?? false;
  const isEdge = (width: number) =>
    !covers(interval, width) || known.some((one) => one.width === width);
  const spans: WidthSpan[] = [];
  for (let at = 0; at < known.length; at++) {
    if (!holds(at)) continue;
    const start = at;
    while (holds(at + 1)) at++;
    const run = known.slice(start, at + 1);
    const [first, last] = [run[0]!.width, run.at(-1)!.width];
    const worst = run.reduce((a, b) => (getOver(b, key) > getOver(a, key) ? b : a));
    const near = !isEdge(first - 1) || !isEdge(last + 1);
    const most = getOver(worst, key);
    spans.push({ ...thing, from: first, to: last, most, at: worst.width, near });
  }
  return spans;
}

function getOver({ over }: Known, key: string): number {
  return over.get(key)?.overhang ?? 0;
}

/** What a window shows; nothing where not all was seen. */
function look(one: Evidence, wide: readonly WideSpan[]): Known[] {
  const seen = FITTING_KINDS.every((kind) => isMeasured(one, kind));
  if (!seen || one.render.variant !== 'as-is') return [];
  const { width } = one.render.viewport;
  const baseline = { scrollWidth: getWide(wide, width) };
  const found = listTooWide({ ...one, baseline }).map(({ for: what, element, overhang }) => {
    const thing: Thing = {
      for: what,
      element: element && { from: element.from, selector: element.selector },
    };
    return [getKey(thing), { thing, overhang }] as const;
  });
  return [{ width, room: one.slot.box.width, over: new Map(found) }];
}

function isSibling(one: Evidence, other: Evidence): boolean {
  const isOneSlot = nameRoom(getPlace(one)) === nameRoom(getPlace(other));
  return isOneSlot && isOneKind(one.render.viewport, other.render.viewport);
}

function getKey({ for: what, element }: Thing): string {
  return `${what} ${getElementKey(element)}`;
}
