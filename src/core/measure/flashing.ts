import type { Box } from '../evidence.js';
import { flatMap, mapPresent } from '../lists.js';

/** What was painted at one moment, cell by cell, from left to right and line by line. */
export interface PaintedFrame {
  /** When, ms. */
  at: number;
  cells: Lights;
}

/** How light the cells of a picture are, by relative luminance (WCAG 2.2), 0 to 1; and which are of a saturated red. */
export interface Lights {
  light: Float32Array;
  /** Values of `RED`. */
  red: Uint8Array;
}

/** Whether something is of a saturated red; what is nearly so is as it was before. */
export const RED = { not: 0, nearly: 1, saturated: 2 } as const;

/** How many cells there are. */
export interface Grid {
  across: number;
  down: number;
  /** How wide and high a cell is, px. */
  size: number;
}

/** What flashes. */
export interface Flash {
  /** px of the picture. */
  box: Box;
  /** How much of it flashes at once, px². */
  area: number;
  /** The most flashes within a second: pairs of opposing changes. */
  count: number;
  /** Its changes are those from and to a saturated red alone. */
  red: boolean;
  /** When they begin, ms. */
  at: number;
}

/** A change of luminance that counts, and of what is so light that less than this is seen (WCAG 2.2, general flash). */
const CHANGE = 0.1;
const LIGHT = 0.8;
/** So long is looked at, ms, and no more flashes than these are let be in it; each is a pair of changes (WCAG 2.2, 2.3.1). */
const SECOND = 1000;
const MOST = 3;
const CHANGES = 2 * (MOST + 1);
/**
 * How much may flash at once: a quarter of any piece of a page so large, which is 10° of what is seen at a usual distance (WCAG 2.2, general flash),
 * px.
 */
const FIELD = { width: 341, height: 256 };
const LARGE = (FIELD.width * FIELD.height) / 4;

/** How a cell changes: after which frames, first to lighter or to darker, then the other way each time; and by how much at most. */
interface Series {
  cell: number;
  frames: number[];
  firstUp: boolean;
  by: number;
}

/**
 * What flashes more than three times within a second over a large area; null where nothing does.
 * @param frames in the order in which they were painted
 */
export function findFlash(frames: readonly PaintedFrame[], grid: Grid): Flash | null {
  const found = findIn(listByLight(frames), frames, grid);
  if (found) return { ...found, red: false };
  const reds = findIn(listByRed(frames), frames, grid);
  return reds && { ...reds, red: true };
}

/** Whether so much as matters has become lighter and darker, one after the other, so often. */
export function couldFlash(frames: readonly PaintedFrame[], grid: Grid, often: number): boolean {
  return [listByLight, listByRed].some((list) => isLarge(list(frames), grid, often));
}

/** Whether there are so many cells that change so often. */
function isLarge(series: readonly Series[], { size }: Grid, often: number): boolean {
  const shares = listShares(series.filter(({ frames }) => frames.length >= often));
  return size * size * shares.reduce((sum, share) => sum + share, 0) > LARGE;
}

/** How much of each cell changes: one of which a part alone does changes by less than others. */
function listShares(series: readonly Series[]): number[] {
  const sorted = Float64Array.from(series, ({ by }) => by).sort();
  const usual = sorted[Math.floor(sorted.length / 2)] ?? 1;
  return series.map(({ by }) => Math.min(1, by / usual));
}

/** The cells that turn from getting lighter to getting darker, or back, by so much that it counts. */
function listByLight(frames: readonly PaintedFrame[]): Series[] {
  return listChanging(frames, ({ light }, at) => light[at]!, isSeen);
}

/** @param low and @param high relative luminances */
function isSeen(low: number, high: number): boolean {
  return high - low >= CHANGE && low < LIGHT;
}

/** The cells that become of a saturated red, or of another colour again. */
function listByRed(frames: readonly PaintedFrame[]): Series[] {
  if (!frames.some(({ cells }) => cells.red.includes(RED.saturated))) return [];
  return listChanging(
    frames,
    ({ red }, at) => red[at]!,
    (low, high) => high - low > RED.nearly,
  );
}

/**
 * The cells whose value goes up and down.
 * @param counts whether a change from one to the other, or back, is one
 */
function listChanging(
  frames: readonly PaintedFrame[],
  get: (cells: Lights, cell: number) => number,
  counts: (low: number, high: number) => boolean,
): Series[] {
  const found: Series[] = [];
  const all = frames[0]?.cells.light.length ?? 0;
  for (let cell = 0; cell < all; cell++) {
    const one: Series = { cell, frames: [], firstUp: false, by: 0 };
    let [low, high, least, most] = [Infinity, -Infinity, Infinity, -Infinity];
    let isUp: boolean | null = null;
    for (let i = 0; i < frames.length; i++) {
      const value = get(frames[i]!.cells, cell);
      if (value < low) low = value;
      if (value > high) high = value;
      if (value < least) least = value;
      if (value > most) most = value;
      const goesUp: boolean = isUp !== true && counts(low, value);
      if (!goesUp && (isUp === false || !counts(value, high))) continue;
      if (one.frames.push(i) === 1) one.firstUp = goesUp;
      isUp = goesUp;
      low = high = value;
    }
    one.by = encode(most) - encode(least);
    if (one.frames.length > 0) found.push(one);
  }
  return found;
}

/** In small pictures colours are mixed by their values, and not by their light (sRGB, about). */
function encode(light: number): number {
  return light ** (1 / 2.2);
}

/** A cell with when a second begins in which it changes often enough, ms. */
interface Beginning extends Series {
  begins: number[];
}

/** Its changes within such a second, and how much of the cell does so. */
interface Flashing extends Series {
  share: number;
}
type Found = Omit<Flash, 'red'>;

function findIn(
  series: readonly Series[],
  frames: readonly PaintedFrame[],
  grid: Grid,
): Found | null {
  if (!isLarge(series, grid, CHANGES)) return null;
  const times = frames.map(({ at }) => at);
  const all = mapPresent(series, (one): Beginning | null => {
    const begins = listBegins(one, times);
    return begins.length > 0 ? { ...one, begins } : null;
  });
  const begins = new Set(flatMap(all, (one) => one.begins));
  for (const at of thin([...begins].sort((a, b) => a - b))) {
    const found = findAt(weigh(all, times, at), grid);
    if (found) return { ...found, at };
  }
  return null;
}

function listBegins({ frames }: Series, times: readonly number[]): number[] {
  return mapPresent(frames.entries(), ([i, frame]) => {
    const last = frames[i + CHANGES - 1];
    return last !== undefined && times[last]! - times[frame]! <= SECOND ? times[frame]! : null;
  });
}

/** What flashes together begins within so long of each other, ms. */
const APART = SECOND / CHANGES;

function thin(begins: readonly number[]): number[] {
  const kept: number[] = [];
  for (const at of begins) if (at - (kept.at(-1) ?? -Infinity) >= APART) kept.push(at);
  return kept;
}

/** The cells that flash in a second. */
function weigh(all: readonly Beginning[], times: readonly number[], begin: number): Flashing[] {
  const found = mapPresent(all, ({ begins, ...one }) => {
    const own = begins.find((at) => Math.abs(at - begin) <= APART);
    if (own === undefined) return null;
    const skipped = one.frames.findIndex((frame) => times[frame]! >= own);
    const frames = one.frames.slice(skipped).filter((frame) => times[frame]! <= own + SECOND);
    return { ...one, frames, firstUp: one.firstUp === (skipped % 2 === 0) };
  });
  const shares = listShares(found);
  return found.map((one, i) => ({ ...one, share: shares[i]! }));
}

/** So many fields are looked into in which enough flashes: in one that moves it does so one part after the other. */
const MOST_FIELDS = 8;

function findAt(flashing: readonly Flashing[], grid: Grid): Omit<Found, 'at'> | null {
  const fields = listFields(flashing, grid)
    .filter(({ area }) => area > LARGE)
    .sort((a, b) => b.area - a.area);
  for (const field of fields.slice(0, MOST_FIELDS)) {
    const cells = flashing.filter(({ cell }) => isIn(field, cell, grid));
    const count = Math.floor(countSwings(cells) / 2);
    if (count > MOST) return { box: findBox(cells, flashing, grid), area: field.area, count };
  }
  return null;
}

/** A field of view, in cells, and how much of it flashes, px². */
interface Field {
  left: number;
  top: number;
  wide: number;
  high: number;
  area: number;
}

/** At every quarter of one. */
function listFields(flashing: readonly Flashing[], { across, down, size }: Grid): Field[] {
  const [wide, high] = [Math.round(FIELD.width / size), Math.round(FIELD.height / size)];
  const sums = sumUp(flashing, across, down);
  const sum = (x: number, y: number) =>
    sums[Math.min(y, down) * (across + 1) + Math.min(x, across)]!;
  return flatMap(listStarts(down, high), (top) =>
    listStarts(across, wide).map((left) => {
      const [right, bottom] = [left + wide, top + high];
      const shares = sum(right, bottom) - sum(left, bottom) - sum(right, top) + sum(left, top);
      return { left, top, wide, high, area: size * size * shares };
    }),
  );
}

/** What all cells above and to the left of each corner come to. */
function sumUp(flashing: readonly Flashing[], across: number, down: number): Float64Array {
  const sums = new Float64Array((across + 1) * (down + 1));
  const put = (cell: number) =>
    (Math.floor(cell / across) + 1) * (across + 1) + (cell % across) + 1;
  for (const { cell, share } of flashing) sums[put(cell)] = share;
  for (let y = 1; y <= down; y++)
    for (let x = 1; x <= across; x++) {
      const at = y * (across + 1) + x;
      sums[at]! += sums[at - 1]! + sums[at - across - 1]! - sums[at - across - 2]!;
    }
  return sums;
}

function isIn({ left, top, wide, high }: Field, cell: number, { across }: Grid): boolean {
  const [x, y] = [cell % across, Math.floor(cell / across)];
  return x >= left && x < left + wide && y >= top && y < top + high;
}

function listStarts(all: number, field: number): number[] {
  const starts: number[] = [];
  const last = Math.max(0, all - field);
  for (let start = 0; start < last; start += Math.floor(field / 4)) starts.push(start);
  return [...starts, last];
}

/** As much of it as must have changed for it to be the other way round as a whole. */
const MOSTLY = 0.75;

/** How often it becomes lighter or darker as a whole. What moves does so here and there. */
function countSwings(cells: readonly Flashing[]): number {
  let [all, lit] = [0, 0];
  const gained = new Map<number, number>();
  for (const { frames, firstUp, share } of cells) {
    all += share;
    if (!firstUp) lit += share;
    for (const [i, frame] of frames.entries()) {
      const up = (i % 2 === 0) === firstUp;
      gained.set(frame, (gained.get(frame) ?? 0) + (up ? share : -share));
    }
  }
  let [swings, isLit] = [0, lit > all / 2];
  for (const [, gain] of [...gained].sort(([a], [b]) => a - b)) {
    lit += gain;
    if (isLit ? lit > (1 - MOSTLY) * all : lit < MOSTLY * all) continue;
    isLit = !isLit;
    swings++;
  }
  return swings;
}

/** Around all that flashes and hangs together with what does so in a field. */
function findBox(field: readonly Flashing[], flashing: readonly Flashing[], grid: Grid): Box {
  const { across, size } = grid;
  const left = new Set(flashing.map(({ cell }) => cell));
  const open = field.map(({ cell }) => cell);
  const box = { x0: Infinity, y0: Infinity, x1: 0, y1: 0 };
  for (let cell = open.pop(); cell !== undefined; cell = open.pop()) {
    if (!left.delete(cell)) continue;
    const [x, y] = [cell % across, Math.floor(cell / across)];
    [box.x0, box.y0] = [Math.min(box.x0, x), Math.min(box.y0, y)];
    [box.x1, box.y1] = [Math.max(box.x1, x + 1), Math.max(box.y1, y + 1)];
    if (x > 0) open.push(cell - 1);
    if (x + 1 < across) open.push(cell + 1);
    open.push(cell - across, cell + across);
  }
  const { x0, y0, x1, y1 } = box;
  return { x: x0 * size, y: y0 * size, width: (x1 - x0) * size, height: (y1 - y0) * size };
}
