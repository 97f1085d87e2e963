import { expect, test } from '@jest/globals';
import { takeSteady } from '../../src/render/chromium/shoot.js';

test.each<[string, (string | null)[], string | null, number]>([
  ['is painted at once', ['map', 'map'], 'map', 2],
  ['is painted late', ['blank', 'blurred', 'map', 'map'], 'map', 4],
  ['never stays as it is', ['1', '2', '3', '4', '5'], '4', 4],
  ['is not drawn', [null], null, 1],
  ['is drawn but once', ['map', null], 'map', 2],
])('a shot of what %s', async (_, drawn, wanted, takes) => {
  let taken = 0;
  const found = await takeSteady(async () => {
    const one = drawn[taken++] ?? null;
    return one === null ? null : Buffer.from(one);
  });
  expect([found && found.toString(), taken]).toEqual([wanted, takes]);
});
