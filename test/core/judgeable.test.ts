import { expect, test } from '@jest/globals';
import { listJudgeable } from '../../src/core/markup/judgeable.js';
import { readMarkup } from '../../src/core/markup/markup.js';

test.each<[string, string[]]>([
  [
    '<p style="widht: 1px; --x: 1; -moz-x: 1; *zoom: 1; _height: 1px; padding: 12">',
    ['widht', 'padding'],
  ],
  ['<style>p { height: 1px; height: 1dvh; gap: 1 }</style>', ['gap']],
  ['<style>p { gap: 1 } p { gap: 2 } b { gap: 3 }</style>', ['gap']],
  ['<style>p { gap: 1 } @media print { p { gap: 2 } }</style>', ['gap', 'gap']],
  ['<style>p { filter: alpha(opacity=50); width: expression(1); display: masonry }</style>', []],
  [
    '<style>@font-face { font-family: x; src: y } @keyframes a { to { left: 1 } }</style>',
    ['left'],
  ],
  // Where in the attribute it stands is not known.
  ['<p style="font-family: &quot;x&quot;; gap: 1">', []],
])('%s', (code, properties) => {
  expect(listJudgeable(readMarkup(code)).map(({ property }) => property)).toEqual(properties);
});
