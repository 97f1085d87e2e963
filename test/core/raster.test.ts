import { describe, expect, test } from '@jest/globals';
import { comparePictures, pictureRow } from '../../src/core/compare/pictures.js';
import { findDiffering, type Raster } from '../../src/core/compare/raster.js';
import type { Box } from '../../src/core/evidence.js';
import { makeRender, makeSnippet } from '../support/document.js';

const WHITE = 255;

/** A white picture with boxes in it, each of one grey. */
function paint(width: number, height: number, ...boxes: (Box & { grey: number })[]): Raster {
  const data = new Uint8Array(width * height * 4).fill(WHITE);
  for (const { x, y, grey, ...box } of boxes)
    for (let row = y; row < y + box.height; row++)
      data.fill(grey, (row * width + x) * 4, (row * width + x + box.width) * 4);
  return { width, height, data };
}

const box = (x: number, y: number, width: number, height: number, grey = 0) => ({
  ...{ x, y, width, height, grey },
});

/** Lines of a text, no two of them alike. */
const lines = (y: number, ...lengths: number[]) =>
  lengths.map((length, i) => box(16, y + 24 * i, length, 8, 40 + i));

describe('where two pictures differ', () => {
  test('is nowhere, where they are alike to the eye', () => {
    const one = paint(320, 200, box(10, 10, 50, 50, 100));
    expect(findDiffering(one, paint(320, 200, box(10, 10, 50, 50, 100)))).toEqual({ a: [], b: [] });
    expect(findDiffering(one, paint(320, 200, box(10, 10, 50, 50, 106)))).toEqual({ a: [], b: [] });
  });

  test('is not where something stands half a pixel further, but where a line is gone', () => {
    const bed = paint(320, 100, box(16, 40, 100, 20));
    const further = [box(16, 40, 100, 1, 128), box(16, 41, 100, 19), box(16, 60, 100, 1, 128)];
    expect(findDiffering(bed, paint(320, 100, ...further))).toEqual({ a: [], b: [] });
    const line = paint(320, 100, box(16, 40, 100, 1));
    const areas = [{ x: 16, y: 40, width: 104, height: 8 }];
    expect(findDiffering(line, paint(320, 100)).a).toEqual(areas);
    expect(findDiffering(paint(320, 100), line).b).toEqual(areas);
  });

  test('is not in the rows at the edge, where what stands there is cut off', () => {
    const cut = (rows: number) =>
      paint(320, 100, box(16, 100 - rows, 100, rows), box(16, 0, 9, rows));
    expect(findDiffering(paint(320, 100), cut(2))).toEqual({ a: [], b: [] });
    expect(findDiffering(paint(320, 100), cut(3)).b).toHaveLength(2);
  });

  test('roughly, is not where a line stands half a pixel further', () => {
    const line = paint(320, 100, box(16, 40, 100, 1));
    const between = paint(320, 100, box(16, 40, 100, 1, 128), box(16, 41, 100, 1, 127));
    expect(findDiffering(line, between).a).toHaveLength(1);
    expect(findDiffering(line, between, 'roughly')).toEqual({ a: [], b: [] });
    expect(findDiffering(line, paint(320, 100), 'roughly').a).toHaveLength(1);
    const moved = paint(320, 100, box(16, 44, 100, 2));
    expect(findDiffering(paint(320, 100, box(16, 40, 100, 2)), moved, 'roughly').a).toHaveLength(1);
  });

  test('is told in squares round what is painted otherwise, in both', () => {
    const one = paint(320, 200, box(16, 16, 20, 20, 100));
    const other = paint(320, 200, box(16, 16, 20, 20, 107));
    const areas = [{ x: 16, y: 16, width: 24, height: 24 }];
    expect(findDiffering(one, other)).toEqual({ a: areas, b: areas });
  });

  test('is apart for what stands apart, and one for what belongs together', () => {
    const other = paint(320, 200, box(0, 0, 8, 8), box(48, 0, 8, 8), box(200, 160, 8, 8));
    expect(findDiffering(paint(320, 200), other).b).toEqual([
      { x: 0, y: 0, width: 8, height: 8 },
      { x: 48, y: 0, width: 8, height: 8 },
      { x: 200, y: 160, width: 8, height: 8 },
    ]);
    const near = paint(320, 200, box(0, 0, 8, 8), box(40, 16, 8, 8));
    expect(findDiffering(paint(320, 200), near).b).toEqual([{ x: 0, y: 0, width: 48, height: 24 }]);
  });

  test('is not where something was only pushed down', () => {
    const one = paint(320, 200, ...lines(8, 100, 200, 150));
    const other = paint(320, 248, box(32, 8, 60, 30, 90), ...lines(56, 100, 200, 150));
    const { a, b } = findDiffering(one, other);
    expect(a).toEqual([]);
    expect(b).toHaveLength(1);
    expect(b[0]!.y + b[0]!.height).toBeLessThanOrEqual(56);
    expect([b[0]!.x, b[0]!.width]).toEqual([32, 64]);
  });

  test('is where there is more room, though nothing is painted in it', () => {
    const one = paint(320, 100, ...lines(8, 100));
    const other = paint(320, 140, ...lines(8, 100));
    const { a, b } = findDiffering(one, other);
    expect(a).toEqual([]);
    expect(b).toEqual([expect.objectContaining({ x: 0, width: 320 })]);
  });

  test('is where only one is so wide', () => {
    const other = paint(400, 100, box(300, 40, 80, 8));
    expect(findDiffering(paint(320, 100), other).b).toEqual([
      { x: 296, y: 40, width: 88, height: 8 },
    ]);
  });

  test('is one area where there are very many', () => {
    const dots = Array.from({ length: 30 }, (_, i) =>
      box((i % 6) * 56, Math.floor(i / 6) * 56, 8, 8),
    );
    expect(findDiffering(paint(320, 280), paint(320, 280, ...dots)).b).toEqual([
      { x: 0, y: 0, width: 288, height: 232 },
    ]);
  });
});

describe('candidates side by side', () => {
  const rasters: Record<string, Raster> = {
    a: paint(320, 100),
    b: paint(320, 100, box(16, 40, 8, 8)),
    // The same, but for a strip to the left of the slot.
    c: paint(336, 100),
  };
  const shotOf = (name: string, x = 0) => ({
    hash: name.repeat(64),
    region: { ...{ x, y: 500 }, width: rasters[name]?.width ?? 10, height: 100 },
  });
  const render = (width: number, name: string | null, given = {}) => ({
    ...makeRender('column', width, null),
    shot: name === null ? null : shotOf(name, name === 'c' ? -16 : 0),
    ...given,
  });
  const find = async (...renders: ReturnType<typeof render>[][]) => {
    const snippets = renders.map((own) => makeSnippet({ renders: own }));
    const rows = await comparePictures(snippets, ({ hash }) =>
      Promise.resolve(rasters[hash[0]!] ?? null),
    );
    expect(rows.map((row) => pictureRow.parse(row))).toEqual(rows);
    return rows;
  };
  const tell = (rows: Awaited<ReturnType<typeof find>>) =>
    rows.map(({ viewport, alike, of }) => [viewport, alike, of.map((one) => one?.areas ?? null)]);

  test('are held against the first of them, px of the page', async () => {
    const area = { x: 16, y: 540, width: 8, height: 8 };
    const rows = await find([render(320, 'a')], [render(320, 'b')], [render(320, 'a')]);
    expect(tell(rows)).toEqual([['320', false, [[area], [area], []]]]);
    expect(rows[0]).toMatchObject({ slot: 'column', width: 320 });
  });

  test('stand where they stand in the page', async () => {
    expect(tell(await find([render(320, 'a')], [render(320, 'c')]))).toEqual([
      ['320', true, [[], []]],
    ]);
  });

  test('are not known to be alike where one has no picture', async () => {
    const missing = await find([render(320, 'a'), render(900, 'a')], [render(320, null)]);
    expect(tell(missing)).toEqual([
      ['320', null, [[], null]],
      ['900', null, [[], null]],
    ]);
    expect(tell(await find([render(320, 'a')], [render(320, 'x')]))).toEqual([
      ['320', null, [[], null]],
    ]);
  });

  test('are shown as they are at first alone', async () => {
    const later = render(320, 'b', { after: 12_000 });
    const dark = render(320, 'b', { variant: 'dark' });
    expect(await find([later, dark, render(320, 'a')], [render(320, 'a')])).toHaveLength(1);
  });
});
