import { describe, expect, test } from '@jest/globals';
import {
  couldFlash,
  findFlash,
  RED,
  type Grid,
  type PaintedFrame,
} from '../../src/core/measure/flashing.js';

const GRID: Grid = { across: 40, down: 25, size: 16 };
const CELLS = GRID.across * GRID.down;

type Paint = (x: number, y: number, ms: number) => number;

/** Frames for so long, as a browser shows them. */
function film(light: Paint, { red = () => RED.not, ms = 1300 }: { red?: Paint; ms?: number } = {}) {
  const at = Array.from({ length: Math.round(ms / 16.7) }, (_, i) => i * 16.7);
  const all = (paint: Paint, time: number) =>
    Array.from({ length: CELLS }, (_, cell) =>
      paint(cell % GRID.across, Math.floor(cell / GRID.across), time),
    );
  return at.map((time): PaintedFrame => ({
    at: time,
    cells: {
      light: Float32Array.from(all(light, time)),
      red: Uint8Array.from(all(red, time)),
    },
  }));
}

/** On and off, so many times a second, over so many cells across and down. */
function blink(hertz: number, across = 15, down = 12, [off, on] = [0, 1]): Paint {
  return (x, y, ms) => {
    const isIn = x >= 2 && x < 2 + across && y >= 3 && y < 3 + down;
    if (!isIn) return 1;
    return Math.floor((ms * 2 * hertz) / 1000) % 2 === 0 ? on! : off!;
  };
}

const find = (paint: Paint) => findFlash(film(paint), GRID);

describe('what flashes', () => {
  test('is told with its place, its area and how often', () => {
    expect(find(blink(5))).toEqual({
      box: { x: 32, y: 48, width: 240, height: 192 },
      area: 240 * 192,
      count: 5,
      red: false,
      at: expect.any(Number) as unknown,
    });
  });

  test('does so more than three times within a second', () => {
    expect(find(blink(3))).toBeNull();
    expect(find(blink(4))?.count).toBe(4);
    // Four times, but not within one.
    const four: Paint = (x, y, ms) => (ms < 1300 ? blink(3.2)(x, y, ms) : 1);
    expect(find(four)).toBeNull();
  });

  test('covers more than a quarter of a field', () => {
    expect(find(blink(5, 17, 5))).toBeNull();
    expect(find(blink(5, 43, 2))).toBeNull();
    expect(find(blink(5, 11, 8))?.area).toBe(88 * 256);
    // As much in all, but in no one field.
    const apart: Paint = (x, y, ms) =>
      Math.min(blink(5, 8, 8)(x, y, ms), blink(5, 8, 8)(x - 28, y - 13, ms));
    expect(find(apart)).toBeNull();
  });

  test('changes by a tenth, to something that is not bright itself', () => {
    expect(find(blink(5, 15, 12, [0.3, 0.41]))).not.toBeNull();
    expect(find(blink(5, 15, 12, [0.3, 0.39]))).toBeNull();
    expect(find(blink(5, 15, 12, [0.79, 1]))).not.toBeNull();
    expect(find(blink(5, 15, 12, [0.81, 1]))).toBeNull();
  });

  test('may fade', () => {
    const fade: Paint = (x, y, ms) =>
      blink(5)(x, y, 0) === 1 && x < 17 && x >= 2 && y < 15 && y >= 3
        ? 0.5 + 0.5 * Math.sin((ms / 1000) * 5 * 2 * Math.PI)
        : 1;
    expect(find(fade)).toMatchObject({ count: 5, box: { x: 32, y: 48 } });
  });

  test('may do so in turns', () => {
    const turns: Paint = (x, y, ms) =>
      x < 15 ? blink(5)(x, y, ms) : 1 - blink(5)(x - 20, y, ms) || 0;
    expect(find(turns)?.count).toBe(5);
  });

  test('what moves does not', () => {
    const stripes: Paint = (x, _y, ms) => (Math.floor((x + ms / 30) / 2) % 2 === 0 ? 0 : 1);
    expect(find(stripes)).toBeNull();
    const noise: Paint = (x, y, ms) => Math.abs(Math.sin(x * 12.9 + y * 78.2 + ms * 3.7));
    expect(find(noise)).toBeNull();
  });

  test('a cell of which a part alone flashes counts for as much', () => {
    // Half black and half white is mixed to a fifth of the light.
    const halves =
      (whole: number): Paint =>
      (x, y, ms) => {
        const isWhole = x >= 2 && x < 2 + whole;
        const value = blink(5, whole + 2, 8)(x, y, ms);
        return isWhole ? value : 0.22 + 0.78 * value;
      };
    expect(find(halves(9))).toBeNull();
    expect(find(halves(10))?.area).toBeCloseTo(256 * 88, -3);
  });

  test('from and to a saturated red it does so where it is as light', () => {
    const dim: Paint = () => 0.2;
    const turns: Paint = (x, y, ms) => (blink(5)(x, y, ms) === 0 ? RED.saturated : RED.not);
    expect(findFlash(film(dim, { red: turns }), GRID)).toMatchObject({ red: true, count: 5 });
    const nearly: Paint = (x, y, ms) => (blink(5)(x, y, ms) === 0 ? RED.saturated : RED.nearly);
    expect(findFlash(film(dim, { red: nearly }), GRID)).toBeNull();
  });

  test('where nothing was shown there is none', () => {
    expect(findFlash([], GRID)).toBeNull();
    expect(find(() => 1)).toBeNull();
  });
});

test('what goes back and forth so often by then could', () => {
  const soon = (hertz: number, ms = 600) => film(blink(hertz), { ms });
  expect(couldFlash(soon(5), GRID, 4)).toBe(true);
  expect(couldFlash(soon(2), GRID, 4)).toBe(false);
  expect(couldFlash(film(blink(5, 5, 5), { ms: 600 }), GRID, 4)).toBe(false);
});
