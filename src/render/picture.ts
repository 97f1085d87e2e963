import { PNG } from 'pngjs';
import type { Box, Cell } from '../core/evidence.js';
import { ALIKE } from '../core/compare/raster.js';
import { divide } from '../core/measure/painted.js';

/** A picture of a piece of the page. */
export interface Picture {
  png: PNG;
  /** Its pixels for each CSS px. */
  scale: number;
}

export function readPicture(bytes: Buffer, scale: number): Picture {
  return { png: PNG.sync.read(bytes), scale };
}

type Pixel = readonly [number, number, number];

/**
 * Goes through the pixels of an area, px of the piece; without those of its edge that it has only a part of.
 * @param each takes red, green and blue; false ends it
 */
function eachPixel(
  { png, scale }: Picture,
  { x, y, width, height }: Box,
  each: (red: number, green: number, blue: number) => boolean | void,
): void {
  const { data } = png;
  const [left, top] = [Math.max(0, Math.ceil(x * scale)), Math.max(0, Math.ceil(y * scale))];
  const right = Math.min(png.width, Math.floor((x + width) * scale));
  const bottom = Math.min(png.height, Math.floor((y + height) * scale));
  for (let row = top; row < bottom; row++)
    for (let column = left; column < right; column++) {
      const at = (row * png.width + column) * 4;
      if (each(data[at]!, data[at + 1]!, data[at + 2]!) === false) return;
    }
}

/** How an area is painted, in cells from left to right and line by line. */
export function readCells(picture: Picture, area: Box): Cell[] {
  const { across, down } = divide(area);
  const [width, height] = [area.width / across, area.height / down];
  return Array.from({ length: across * down }, (_, i) => {
    const [column, row] = [i % across, Math.floor(i / across)];
    const cell = { x: area.x + column * width, y: area.y + row * height, width, height };
    return readCell(picture, cell);
  });
}

function readCell(picture: Picture, area: Box): Cell {
  let [red, green, blue, sum, squares, count] = [0, 0, 0, 0, 0, 0];
  eachPixel(picture, area, (r, g, b) => {
    const bright = 0.2126 * r + 0.7152 * g + 0.0722 * b;
    red += r;
    green += g;
    blue += b;
    sum += bright;
    squares += bright * bright;
    count++;
  });
  if (count === 0) return [0, 0, 0, 0];
  const spread = Math.sqrt(Math.max(0, squares / count - (sum / count) ** 2));
  const round = (value: number) => Math.round(value * 10) / 10;
  return [round(red / count), round(green / count), round(blue / count), round(spread)];
}

/** Whether an area has one colour; null where none of it is in the picture. @param colour that one, `#rrggbb`; left out: any */
export function isPlain(picture: Picture, area: Box, colour?: string): boolean | null {
  let first = colour === undefined ? null : parse(colour);
  let [found, plain] = [false, true];
  eachPixel(picture, area, (red, green, blue) => {
    first ??= [red, green, blue];
    found = true;
    return (plain = isAlike(first, red, green, blue));
  });
  return found ? plain : null;
}

function isAlike([r, g, b]: Pixel, red: number, green: number, blue: number): boolean {
  return Math.max(Math.abs(r - red), Math.abs(g - green), Math.abs(b - blue)) <= ALIKE;
}

function parse(colour: string): Pixel {
  const part = (at: number) => parseInt(colour.slice(at, at + 2), 16);
  return [part(1), part(3), part(5)];
}
