import { expect, test } from '@jest/globals';
import type { ElementFact, Facts } from '../../src/core/evidence.js';
import type { Sticking } from '../../src/core/measure/sticking.js';
import { describeWhen, getWhen } from '../../src/core/measure/when.js';

const AT_LOAD = { readAt: 'load' } as Facts['page'];
const SCROLLED = { readAt: 'after-scroll' } as Facts['page'];

function makeSticking(
  early: ElementFact['early'],
  { x = 0, width = 500, side = 'right' as Sticking['side'] } = {},
): Sticking {
  const element = { box: { x, y: 0, width, height: 10 }, early } as ElementFact;
  return { element, overhang: 110, side, edge: side === 'right' ? 390 : 0 } as Sticking;
}

test.each([
  ['load', null, {}],
  ['load', { left: 0, right: 450, animated: true }, {}],
  ['load', { left: 0, right: 392, animated: false }, {}],
  ['animation', { left: 0, right: 391, animated: true }, {}],
  ['later', { left: 0, right: 100, animated: false }, {}],
  ['later', { left: 10, right: 100, animated: false }, { x: -50, side: 'left' as const }],
  ['load', { left: -30, right: 100, animated: false }, { x: -50, side: 'left' as const }],
  // Its text sticks out, and may have done so before.
  ['load', { left: 0, right: 390, animated: true }, { width: 390 }],
] as const)('it sticks out since: %s', (when, early, given) => {
  expect(getWhen(makeSticking(early, given), AT_LOAD)).toBe(when);
});

test('what is read after a scroll was not there before', () => {
  const early = { left: 0, right: 450, animated: false };
  expect(getWhen(makeSticking(early), SCROLLED)).toBe('scroll');
  expect(describeWhen('scroll')).toBe(', after a scroll through the page');
  expect(describeWhen('load')).toBe('');
});
