import { describe, expect, test } from '@jest/globals';
import type { PictureRow } from '../../src/core/compare/pictures.js';
import type { Raster } from '../../src/core/compare/raster.js';
import type { Box, Shot } from '../../src/core/evidence.js';
import { readMarkup } from '../../src/core/markup/markup.js';
import { compareLooks, type SeenPieces } from '../../src/core/live/looks.js';
import { findPieces, type StoodText } from '../../src/core/live/pieces.js';

const base = 'https://www.seedlibrary.example/visit';
const box = (x: number, y: number, width: number, height: number): Box => ({
  ...{ x, y, width, height },
});
const find = (snippet: string, ...stood: Partial<StoodText>[]) =>
  findPieces(
    [{ name: 'a', markup: readMarkup(snippet) }],
    stood.map((one) => ({ text: '', inFrame: false, elements: [], ...one })),
    base,
  ).map((one) => one.box);

const SOWING = '<div class="sowing"><p>Sow runner beans.</p></div><p id="when">In May.</p>';

describe('the piece of a page in which a copy stands', () => {
  const text = `<html><head></head><body><h1>Beds</h1>${SOWING}<p>Ask</p></body></html>`;
  const [head, ask] = [
    [['html', null] as const, ['head', null] as const, ['body', box(0, 0, 320, 900)] as const],
    ['p', box(8, 400, 304, 20)] as const,
  ];
  const h1 = ['h1', box(8, 8, 304, 40)] as const;

  test('is what its outermost elements take, to whole px', () => {
    const elements = [
      ...[...head, h1, ['div', box(8, 59.6, 304, 40.2)] as const],
      ...[['p', box(8, 60, 500, 900)] as const, ['p', box(20, 120, 100.4, 20)] as const, ask],
    ];
    expect(find(SOWING, { text, elements })).toEqual([box(8, 60, 304, 80)]);
  });

  test('is what its parts take where the outermost take none, and is not there where nothing does', () => {
    const inside = ['p', box(30, 60, 200, 50)] as const;
    const elements = [...head, h1, ['div', box(8, 60, 304, 0)] as const, inside];
    expect(find(SOWING, { text, elements: [...elements, ['p', null], ask] })).toEqual([
      box(30, 60, 200, 50),
    ]);
    expect(
      find(SOWING, { text, elements: [...head, h1, ['div', null], ['p', null], ['p', null], ask] }),
    ).toEqual([]);
  });

  test('is known where the page has elements that are read otherwise than they stand', () => {
    // Code can put a paragraph into a paragraph: the words of it are read as two.
    const nested = text.replace('<h1>', '<p><p>Peas</p></p><h1>');
    const two = [['p', box(8, 0, 9, 9)] as const, ['p', box(8, 0, 9, 9)] as const];
    const own = [
      ['div', box(8, 60, 304, 40)],
      ['p', null],
      ['p', null],
    ] as const;
    expect(find(SOWING, { text: nested, elements: [...head, ...two, h1, ...own, ask] })).toEqual([
      box(8, 60, 304, 40),
    ]);
  });

  test('of words alone is the element round them; in a frame it is nowhere', () => {
    const elements = [['p', box(8, 8, 300, 20)] as const];
    expect(find('Sow now', { text: '<p>Sow now</p>', elements })).toEqual([box(8, 8, 300, 20)]);
    expect(find('Sow now', { text: '<p>Sow now</p>', elements, inFrame: true })).toEqual([]);
  });

  test('is taken of three copies, and no larger than a picture may be', () => {
    const copies = '<p id="when">In May.</p>'.repeat(4);
    const elements = [1, 2, 3, 4].map((n) => ['p', box(-5, 10 * n, 5000, 9000)] as const);
    expect(find('<p id="when">In May.</p>', { text: copies, elements })).toEqual(
      [1, 2, 3].map((n) => box(0, 10 * n, 3000, 1600)),
    );
  });
});

describe('what it looks like', () => {
  const shot = (hash: string, x: number, width: number): Shot => ({
    hash,
    region: box(x, 100, width, 40),
  });
  const pieces = (slot: string, viewport: string, ...shots: Shot[]): SeenPieces => ({
    ...{ slot, viewport, shots },
    width: viewport === 'phone' ? 320 : 1280,
  });
  /** Black, but for a hash that begins with a w. */
  const raster = ({ hash, region }: Shot): Promise<Raster> => {
    const { width, height } = region;
    const data = new Uint8Array(width * height * 4).fill(hash.startsWith('w') ? 255 : 0);
    return Promise.resolve({ width, height, data });
  };
  const look = async (own: SeenPieces[], there: SeenPieces[]) =>
    (await compareLooks(own, there, raster)).map((row: PictureRow) => [
      ...[row.slot, row.width, row.alike],
      row.of.map((one) => one?.areas.length),
    ]);

  test('is held against the slot in which it is most nearly as wide, in the same window', async () => {
    const own = [
      pieces('article', 'desktop', shot('a', 24, 680)),
      pieces('sidebar', 'desktop', shot('b', 900, 300)),
      pieces('article', 'phone', shot('c', 16, 288)),
    ];
    expect(
      await look(own, [
        pieces('', 'desktop', shot('p', 8, 301)),
        pieces('', 'phone', shot('w', 8, 288)),
        pieces('', 'tablet', shot('t', 8, 288)),
        pieces('', 'phone'),
      ]),
    ).toEqual([
      ['sidebar', 1280, true, [0, 0]],
      ['article', 320, false, [1, 1]],
    ]);
  });

  test('is not judged where a copy is not as wide', async () => {
    const own = [pieces('article', 'phone', shot('a', 16, 288))];
    const copies = [shot('p', 8, 288), shot('q', 8, 290)];
    expect(await look(own, [pieces('', 'phone', ...copies)])).toEqual([
      ['article', 320, null, [0, 0, 0]],
    ]);
    expect(await look(own, [pieces('', 'phone', shot('p', 8, 289))])).toEqual([
      ['article', 320, true, [0, 0]],
    ]);
  });
});
