import { expect, test } from '@jest/globals';
import type { PictureRow } from '../../src/core/compare/pictures.js';
import { listAltered, listDiffering } from '../../src/core/mend/looks.js';
import { isProven, proveCures } from '../../src/core/mend/proof.js';
import { makeFinding, makeSeen } from '../support/document.js';

const row = (slot: string, width: number, alike: boolean | null): PictureRow => ({
  ...{ slot, viewport: String(width), width, alike, of: [] },
});
const rows = [
  row('column', 320, false),
  row('column', 390, true),
  row('column', 1280, false),
  row('sidebar', 320, false),
  row('sidebar', 390, null),
];
const narrow = makeFinding({ seen: [makeSeen('column', 320, 1), makeSeen('column', 390, 1)] });
const beside = makeFinding({ seen: [makeSeen('sidebar', 320, 1)] });

test('a cure alters what looks otherwise where nothing of it was seen', () => {
  expect(listAltered([narrow], rows)).toEqual(['column at 1280 px', 'sidebar at 320 px']);
  expect(listAltered([narrow, beside], rows)).toEqual(['column at 1280 px']);
  expect(listDiffering(rows)).toEqual([
    'column at 320 px',
    'column at 1280 px',
    'sidebar at 320 px',
  ]);
});

test('put in another way it is another place', () => {
  const framed = makeFinding({ seen: [{ ...makeSeen('column', 1280, 1), insert: 'frame' }] });
  expect(listAltered([framed], [row('column', 1280, false)])).toEqual(['column at 1280 px']);
  expect(listAltered([framed], [row('column (frame)', 1280, false)])).toEqual([]);
});

test('where what only the markup shows is to be seen nobody knows', () => {
  expect(listAltered([narrow, makeFinding({ seen: [] })], rows)).toEqual([]);
});

test('no cure is proven by which something else looks otherwise', () => {
  const before = { findings: [narrow], gaps: [] };
  const after = { findings: [], gaps: [] };
  expect(isProven(proveCures(before, [narrow], after))).toBe(true);
  expect(isProven(proveCures(before, [narrow], after, ['column at 1280 px']))).toBe(false);
});
