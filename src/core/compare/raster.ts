import { diffArrays } from 'diff';
import type { Box } from '../evidence.js';
import { SQUARE, Squares } from './squares.js';

/** A decoded picture: red, green, blue and alpha, 0 to 255, pixel by pixel and row by row. */
export interface Raster {
  width: number;
  height: number;
  data: Uint8Array;
}

/** What differs by less nobody sees, of 255. */
export const ALIKE = 6;
/** Means of so many pixels to each side that differ by less, of 255, are the same thing drawn at another fraction of a pixel. */
const [ROUND, ALIKE_ROUND] = [3, 16];
/** With more rows put in and taken out than this nothing is sought that might match. */
const MOST_EDITS = 3000;

/** Roughly, what is but drawn at another fraction of a pixel is the same, and so is a slightly other colour of letters. */
export type How = 'closely' | 'roughly';

/** From one row to before another, of each. */
interface Block {
  a: [from: number, to: number];
  b: [from: number, to: number];
}

/**
 * Where two pictures differ, px of each. Rows that both have are found wherever they stand: what was only pushed
 * down is no difference.
 */
export function findDiffering(a: Raster, b: Raster, how: How = 'closely'): { a: Box[]; b: Box[] } {
  const width = Math.min(a.width, b.width);
  // White rows match white rows anywhere: where rows stand as they are may say less, and that is nearer to the truth.
  const ways = [[asTheyStand(a, b)], listBlocks(a, b, width)].map((blocks) =>
    markAll(a, b, width, blocks, how),
  );
  const [{ inA, inB }] = ways.sort((one, other) => countSquares(one) - countSquares(other)) as [
    Marked,
  ];
  return { a: inA.toBoxes(), b: inB.toBoxes() };
}

function asTheyStand(a: Raster, b: Raster): Block {
  return { a: [0, a.height], b: [0, b.height] };
}

/** What differs, in each. */
interface Marked {
  inA: Squares;
  inB: Squares;
}

function countSquares({ inA, inB }: Marked): number {
  return inA.count + inB.count;
}

function markAll(a: Raster, b: Raster, width: number, blocks: readonly Block[], how: How): Marked {
  const [inA, inB] = [new Squares(a), new Squares(b)];
  for (const block of blocks) {
    const paired = Math.min(block.a[1] - block.a[0], block.b[1] - block.b[0]);
    for (let row = 0; row < paired; row++)
      markPair({ ...a, row: block.a[0] + row }, { ...b, row: block.b[0] + row }, width, how, {
        inA,
        inB,
      });
    markRows(a, [block.a[0] + paired, block.a[1]], inA);
    markRows(b, [block.b[0] + paired, block.b[1]], inB);
  }
  for (const [raster, squares] of [
    [a, inA],
    [b, inB],
  ] as const)
    markBeyond(raster, width, squares);
  return { inA, inB };
}

/** The blocks of rows that are not the same in both. */
function listBlocks(a: Raster, b: Raster, width: number): Block[] {
  const known = new Map<string, number>();
  const changes = diffArrays(nameRows(a, width, known), nameRows(b, width, known), {
    maxEditLength: MOST_EDITS,
  });
  if (!changes) return [asTheyStand(a, b)];
  const blocks: Block[] = [];
  let [atA, atB] = [0, 0];
  let open: Block | null = null;
  for (const { count = 0, added, removed } of changes) {
    if (!added && !removed) open = null;
    else if (open === null) blocks.push((open = { a: [atA, atA], b: [atB, atB] }));
    if (!added) atA += count;
    if (!removed) atB += count;
    if (open) [open.a[1], open.b[1]] = [atA, atB];
  }
  return blocks;
}

/** A number for each row: the same for the same pixels. */
function nameRows({ data, width: own, height }: Raster, width: number, known: Map<string, number>) {
  const bytes = Buffer.from(data.buffer, data.byteOffset, data.byteLength);
  return Array.from({ length: height }, (_, row) => {
    const from = row * own * 4;
    const pixels = bytes.toString('latin1', from, from + width * 4);
    const name = known.get(pixels) ?? known.size;
    known.set(pixels, name);
    return name;
  });
}

/** Marks what two rows that stand for each other do not have in common. */
function markPair(a: At, b: At, width: number, how: How, { inA, inB }: Marked): void {
  for (let x = 0; x < width; x++) {
    if (isAlike(a.data, toOffset(a, x), b.data, toOffset(b, x))) continue;
    if (isAmong(a, b, x) && isAmong(b, a, x)) continue;
    if (how === 'roughly' && isAlikeRound(a, b, x)) continue;
    inA.mark(x, a.row);
    inB.mark(x, b.row);
  }
}

/** Whether the means round a pixel are alike. */
function isAlikeRound(a: At, b: At, x: number): boolean {
  const [ofA, ofB] = [getMean(a, x), getMean(b, x)];
  return ofA.every((value, part) => Math.abs(value - ofB[part]!) <= ALIKE_ROUND);
}

/** Of red, green and blue. */
function getMean({ data, row, width, height }: At, x: number): number[] {
  const sums = [0, 0, 0];
  let count = 0;
  for (let y = Math.max(row - ROUND, 0); y <= Math.min(row + ROUND, height - 1); y++)
    for (let at = Math.max(x - ROUND, 0); at <= Math.min(x + ROUND, width - 1); at++, count++)
      for (let part = 0; part < 3; part++) sums[part]! += data[(y * width + at) * 4 + part]!;
  return sums.map((sum) => sum / count);
}

/** A row of a picture. */
type At = Raster & { row: number };

function toOffset({ width, row }: At, x: number): number {
  return (row * width + x) * 4;
}

/**
 * Whether a pixel lies between those that the other picture has there and round it: what stands half a pixel further,
 * or is drawn half a pixel larger, nobody sees.
 */
function isAmong(one: At, other: At, x: number): boolean {
  const at = toOffset(one, x);
  for (let part = 0; part < 3; part++) {
    let [least, most] = [255, 0];
    for (
      let row = Math.max(other.row - 1, 0);
      row <= Math.min(other.row + 1, other.height - 1);
      row++
    )
      for (let column = Math.max(x - 1, 0); column <= Math.min(x + 1, other.width - 1); column++) {
        const value = other.data[(row * other.width + column) * 4 + part]!;
        least = Math.min(least, value);
        most = Math.max(most, value);
      }
    const value = one.data[at + part]!;
    if (value < least - ALIKE || value > most + ALIKE) return false;
  }
  return true;
}

/** Marks what is painted in rows that only one picture has; where nothing is, all of them: there is more room. */
function markRows(raster: Raster, [from, to]: Block['a'], squares: Squares): void {
  const { data, width } = raster;
  let painted = false;
  for (let row = from; row < to; row++) {
    const ground = findGround(raster, row);
    for (let x = 0; x < width; x++) {
      if (isAlike(data, ground, data, (row * width + x) * 4)) continue;
      painted = true;
      squares.mark(x, row);
    }
  }
  if (painted) return;
  for (let row = from; row < to; row++)
    for (let x = 0; x < width; x += SQUARE) squares.mark(x, row);
}

/** Where in the data the first pixel of the colour is that a row has most of. */
function findGround({ data, width }: Raster, row: number): number {
  const found = new Map<number, { at: number; count: number }>();
  for (let at = row * width * 4; at < (row + 1) * width * 4; at += 4) {
    const colour = (data[at]! << 16) | (data[at + 1]! << 8) | data[at + 2]!;
    const one = found.get(colour);
    if (one) one.count++;
    else found.set(colour, { at, count: 1 });
  }
  return [...found.values()].reduce((most, one) => (one.count > most.count ? one : most)).at;
}

/** Marks what is painted where the other picture is not as wide: on the ground that the page has at its top. */
function markBeyond(raster: Raster, from: number, squares: Squares): void {
  const { data, width, height } = raster;
  if (from >= width) return;
  const ground = findGround(raster, 0);
  for (let row = 0; row < height; row++)
    for (let x = from; x < width; x++)
      if (!isAlike(data, ground, data, (row * width + x) * 4)) squares.mark(x, row);
}

function isAlike(a: Uint8Array, atA: number, b: Uint8Array, atB: number): boolean {
  for (let i = 0; i < 3; i++) if (Math.abs(a[atA + i]! - b[atB + i]!) > ALIKE) return false;
  return true;
}
