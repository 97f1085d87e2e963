import { expect, test } from '@jest/globals';
import { holdsAt } from '../../src/core/markup/media.js';

test.each<[string, number, boolean | null]>([
  ['print', 320, false],
  ['screen and (min-width: 600px)', 320, false],
  ['screen and (min-width: 600px)', 600, true],
  ['(max-width: 20em)', 320, true],
  ['(max-width: 20em)', 321, false],
  ['(width >= 400px)', 399, false],
  ['print, (min-width: 1px)', 320, true],
  ['(hover: hover)', 320, null],
  ['(hover: hover) and (min-width: 600px)', 320, false],
  ['not print', 320, null],
])('the condition %s at %i px', (query, width, holds) => {
  expect(holdsAt(query, width)).toBe(holds);
});
