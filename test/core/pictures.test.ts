import { describe, expect, test } from '@jest/globals';
import {
  getSharpness,
  listShownPictures,
  type ShownPicture,
} from '../../src/core/measure/pictures.js';

const BEANS = 'https://static.rootcellar.example/beans.png';

function makePicture(over: Partial<ShownPicture>): ShownPicture {
  const base = { tag: 'img', shown: true, loaded: true, address: BEANS, fit: 'fill' };
  return { ...base, ...over } as ShownPicture;
}

describe('the px of a picture for each px that it shows at', () => {
  const size = { pixels: { width: 400, height: 200 }, drawn: { width: 100, height: 100 } };
  test.each([
    ['fill', Math.sqrt(8)],
    ['cover', 2],
    ['contain', 4],
    ['none', null],
  ])('%s', (fit, sharpness) => {
    expect(getSharpness(makePicture({ ...size, fit }))).toBe(sharpness);
  });
});

test('only pictures of px that show are measured', () => {
  const size = { pixels: { width: 40, height: 20 }, drawn: { width: 100, height: 100 } };
  const pictures = [
    makePicture({ ...size, id: 1 }),
    makePicture({ ...size, id: 2, shown: false }),
    makePicture({ ...size, id: 3, address: 'https://static.rootcellar.example/bean.svg?v=2' }),
    makePicture({ ...size, id: 4, address: 'https://static.rootcellar.example/drawn' }),
    makePicture({ ...size, id: 5, pixels: { width: 1, height: 40 } }),
    makePicture({ id: 6, drawn: size.drawn, pixels: null as never }),
  ];
  const drawn = 'https://static.rootcellar.example/drawn';
  const traffic = [{ first: drawn, status: 200, contentType: 'image/svg+xml' }];
  const found = listShownPictures({ pictures, traffic } as never);
  expect(found.map(({ id }) => id)).toEqual([1]);
});
