import { describe, expect, test } from '@jest/globals';
import type { Cell, PaintedPart } from '../../src/core/evidence.js';
import { isRepainted, listRepainted } from '../../src/core/measure/painted.js';
import { findRising } from '../../src/core/rising.js';

const LETTERS: Cell = [240, 240, 240, 40];
const PLAIN: Cell = [250, 250, 250, 0];

function makePart(cells: Cell[], rest: Partial<PaintedPart> = {}): PaintedPart {
  return { offset: 1, tag: 'p', words: '', width: 200, height: 24, cells, ...rest };
}

describe('whether a part of the page is painted otherwise', () => {
  const before = makePart([LETTERS, LETTERS, PLAIN, PLAIN]);
  const isOther = (...cells: Cell[]) => isRepainted(makePart(cells), before);

  test('its letters are gone, fainter, or on another ground', () => {
    expect(isOther(PLAIN, PLAIN, PLAIN, PLAIN)).toBe(true);
    expect(isOther([244, 244, 244, 23], [244, 244, 244, 23], PLAIN, PLAIN)).toBe(true);
    expect(isOther([240, 240, 175, 40], [240, 240, 175, 40], PLAIN, PLAIN)).toBe(true);
  });

  test('not where little differs, or in less than half of what shows something', () => {
    expect(isOther([244, 244, 244, 25], [240, 240, 177, 40], PLAIN, PLAIN)).toBe(false);
    expect(
      isRepainted(makePart([LETTERS, LETTERS, PLAIN]), makePart([LETTERS, LETTERS, LETTERS])),
    ).toBe(false);
    expect(isOther(LETTERS, PLAIN, PLAIN, PLAIN)).toBe(true);
  });

  test('what shows nothing goes by its colour', () => {
    const dark: Cell = [20, 40, 20, 0];
    expect(isRepainted(makePart([PLAIN, PLAIN]), makePart([dark, dark]))).toBe(true);
    expect(isRepainted(makePart([PLAIN, PLAIN]), makePart([PLAIN, PLAIN]))).toBe(false);
  });

  test('letters of a line are gone, and not only an edge of them, or in a corner', () => {
    const tall = { height: 24 };
    const line = [LETTERS, LETTERS, LETTERS, LETTERS];
    const empty = [PLAIN, PLAIN, PLAIN, PLAIN];
    const some = [LETTERS, LETTERS, PLAIN, PLAIN];
    const corner = [LETTERS, LETTERS, LETTERS, PLAIN];
    const shade: Cell = [190, 190, 190, 30];
    const all = makePart([...line, ...line, ...line, ...line], tall);
    const tell = (...cells: Cell[]) => isRepainted(makePart(cells, tall), all);
    expect(tell(...line, ...line, ...some, ...some)).toBe(true);
    expect(tell(...line, ...line, ...line, ...empty)).toBe(false);
    expect(tell(...line, ...line, ...corner, ...corner)).toBe(false);
    expect(tell(...line, ...line, ...line, shade, shade, shade, shade)).toBe(false);
  });

  test('what shows where there was nothing is no harm to what was there', () => {
    const shadow: Cell = [217, 217, 217, 12];
    expect(isOther([236, 236, 236, 37], [236, 236, 236, 37], shadow, shadow)).toBe(false);
  });

  test('of another size its lines are others', () => {
    const gone = [PLAIN, PLAIN, PLAIN, PLAIN];
    expect(isRepainted(makePart(gone, { width: 198 }), before)).toBe(false);
    expect(isRepainted(makePart(gone, { height: 48 }), before)).toBe(false);
    expect(isRepainted(makePart(gone, { width: 199 }), before)).toBe(true);
  });

  test('it counts where it is so against each picture of the page alone', () => {
    const gone = makePart([PLAIN, PLAIN, PLAIN, PLAIN]);
    const other = makePart([PLAIN], { offset: 2 });
    expect(listRepainted([gone, other], [[before]])).toEqual([gone]);
    expect(listRepainted([gone], [[before], [gone]])).toEqual([]);
    expect(listRepainted([gone], [[before], []])).toEqual([]);
  });
});

test('as much as possible of a list stays where it does not fall', () => {
  const rise = (...all: number[]) => findRising(all.map((was) => ({ was }))).map(({ was }) => was);
  expect(rise(5, 1, 2, 3)).toEqual([1, 2, 3]);
  expect(rise(1, 4, 2, 3, 9, 5)).toEqual([1, 2, 3, 5]);
  expect(rise(1, 2, 2, 0, 3)).toEqual([1, 2, 2, 3]);
  expect(rise()).toEqual([]);
});
