import { describe, expect, test } from '@jest/globals';
import { PNG } from 'pngjs';
import type { Cell, Evidence, PaintedPart } from '../../src/core/evidence.js';
import { getDefaultHouse } from '../../src/core/house/read.js';
import { planRenders } from '../../src/core/plan.js';
import { makeLost } from '../../src/render/bounds/lost.js';
import { compareAll } from '../../src/render/empty/compare.js';
import { isPlain, readCells, readPicture } from '../../src/render/picture.js';

/** A picture at half its size: grey, and black from one column on. */
function draw(width: number, height: number, from: number) {
  const png = new PNG({ width: width / 2, height: height / 2 });
  for (let i = 0; i < png.width * png.height; i++) {
    const shade = (i % png.width) * 2 >= from ? 0 : 200;
    png.data.set([shade, shade, shade, 255], i * 4);
  }
  return readPicture(PNG.sync.write(png), 0.5);
}

describe('a picture of the window', () => {
  const picture = draw(200, 40, 120);
  const area = (x: number, width: number) => ({ x, y: 4, width, height: 11 });

  test('is told by cells of 40 px at least, four at most', () => {
    expect(readCells(picture, area(0, 30))).toEqual([[200, 200, 200, 0]]);
    expect(readCells(picture, area(0, 79))).toHaveLength(1);
    expect(readCells(picture, area(0, 80))).toHaveLength(2);
    expect(readCells(picture, area(0, 200))).toHaveLength(4);
    // From 6 px on a line has some of its own.
    expect(readCells(picture, { ...area(0, 200), height: 12 })).toHaveLength(8);
    expect(readCells(picture, { ...area(0, 30), height: 900 })).toHaveLength(80);
    expect(readCells(picture, area(40, 160))).toEqual([
      [200, 200, 200, 0],
      [200, 200, 200, 0],
      [0, 0, 0, 0],
      [0, 0, 0, 0],
    ]);
  });

  test('has a mean and a spread in each', () => {
    expect(readCells(picture, area(100, 40))).toEqual([[100, 100, 100, 100]]);
  });

  test('is plain where it has one colour, and that one where it is asked for', () => {
    expect(isPlain(picture, area(0, 120))).toBe(true);
    expect(isPlain(picture, area(0, 130))).toBe(false);
    expect(isPlain(picture, area(0, 100), '#c8c8c8')).toBe(true);
    expect(isPlain(picture, area(0, 100), '#cecece')).toBe(true);
    expect(isPlain(picture, area(0, 100), '#cfcfcf')).toBe(false);
    expect(isPlain(picture, area(300, 40))).toBeNull();
  });
});

describe('held against the page alone', () => {
  const house = getDefaultHouse();
  const [render] = planRenders('x', house, house);
  const makePart = (spread: number): PaintedPart => {
    const cells: Cell[] = [[240, 240, 240, spread]];
    return { offset: 7, tag: 'p', words: '', width: 30, height: 20, cells };
  };
  const look = (...parts: PaintedPart[]): Evidence => ({
    ...makeLost(render!, 0, ''),
    gaps: [],
    paint: { parts, blank: false, unseen: [] },
  });

  /** What is left of an empty layer over a part, where the page alone shows it with these spreads, one load after the other. */
  async function compare(spreads: readonly number[], ...parts: PaintedPart[]) {
    const asked: number[] = [];
    const empty = {
      shoot: () => Promise.resolve(null),
      visit: () => Promise.reject(new Error('not asked')),
      paint: (_render: unknown, time: number) => {
        asked.push(time);
        const spread = spreads[time - 1];
        return spread === undefined
          ? Promise.reject(new Error('gone'))
          : Promise.resolve({ parts: [makePart(spread)], blank: null, unseen: [] });
      },
    };
    const [one] = await compareAll([look(...parts)], empty, { keys: true, swipes: false });
    return { parts: one!.paint.parts.length, gaps: one!.gaps.map(({ kind }) => kind), asked };
  }

  test('a part is painted over where it is so against two loads of it', async () => {
    expect(await compare([40, 40], makePart(0))).toEqual({ parts: 1, gaps: [], asked: [1, 2] });
    expect(await compare([40, 0], makePart(0))).toEqual({ parts: 0, gaps: [], asked: [1, 2] });
  });

  test('the second is made only where the first is another', async () => {
    expect(await compare([40, 40], makePart(38))).toEqual({ parts: 0, gaps: [], asked: [1] });
    expect(await compare([])).toEqual({ parts: 0, gaps: [], asked: [] });
  });

  test('what could not be seen without it is a gap', async () => {
    expect(await compare([], makePart(0))).toEqual({ parts: 0, gaps: ['paint'], asked: [1] });
    expect(await compare([40], makePart(0))).toEqual({ parts: 0, gaps: ['paint'], asked: [1, 2] });
  });
});
