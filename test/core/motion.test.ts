import { expect, test } from '@jest/globals';
import { readMarkup } from '../../src/core/markup/markup.js';
import { listMoving } from '../../src/core/measure/motion.js';

const SWING =
  '<style>@keyframes swing { 50% { left: 9px } } .swap { animation: swing 3s infinite }</style>';
const LINE = '<p class="swap">Seed swap</p>';

interface Size {
  width: number;
  height: number;
}

function count(text: string, box: Size, more: object = {}): number {
  const motion = { shown: true, box, how: 'animated', pictured: false, ...more };
  const renders = [{ motions: [motion] }];
  return listMoving({ markup: readMarkup(text), renders } as never).length;
}

const WIDE = { width: 300, height: 20 };

test.each([
  ['a wide line', {}, WIDE, 1],
  ['what is hidden', { shown: false }, WIDE, 0],
  ['a small wheel', {}, { width: 48, height: 48 }, 0],
  ['a drawing that is wide and low', { pictured: true }, WIDE, 0],
  ['a drawing over 48 px square', { pictured: true }, { width: 49, height: 49 }, 1],
  ['a small picture of several frames', { how: 'picture' }, { width: 20, height: 20 }, 1],
  ['a counter of several frames', { how: 'picture' }, { width: 2, height: 2 }, 0],
])('%s', (_name, more, box, found) => {
  expect(count(SWING + LINE, box, more)).toBe(found);
});

test.each([
  [
    'a box to check stops it',
    `<style>#a:checked ~ .swap { animation-play-state: paused }</style>`,
    0,
  ],
  [
    'only for those who wish for less motion',
    '<style>@media (prefers-reduced-motion) { .swap { animation: none } }</style>',
    1,
  ],
  ['a button, and code', '<button>Stop</button><script>stop()</script>', 0],
  ['a button without code', '<button>Stop</button>', 1],
  ['code without anything to press', '<script>start()</script>', 1],
])('%s', (_name, more, found) => {
  expect(count(SWING + more + LINE, WIDE)).toBe(found);
});
