import { expect, test } from '@jest/globals';
import { watchHeart } from '../../src/render/chromium/heart.js';

const MS = 100;

/** A page that never answers, whose process has the share `busy` of the processor beside one that has none. */
function beat(busy: number | null, talks = false, insists = false) {
  let asked = 0;
  let looks = 0;
  // By how often it is asked, whatever the machine's clock does meanwhile: it is once while it is waited for.
  const spend = () => (looks++ * MS * (busy ?? 0)) / 1000;
  const heart = {
    ended: false,
    talks,
    insists,
    answers: async (ms: number) => {
      asked++;
      await new Promise((resolve) => setTimeout(resolve, ms));
      return false;
    },
    getWork: async () =>
      busy === null
        ? null
        : new Map([
            [1, 0],
            [2, spend()],
          ]),
  };
  return watchHeart(() => heart, MS).hung.then(() => asked);
}

test('code that has the processor hangs when its time is over', async () => {
  expect(await beat(1)).toBe(1);
});

test('code that has a part of the processor is given the time that it needs to have as much', async () => {
  expect(await beat(0.3)).toBe(2);
});

test('one that opens dialogs without end is not waited for', async () => {
  expect(await beat(0.001, true, true)).toBe(1);
});

test.each([
  ['the machine has no processor for it', 0.001, false],
  ['the browser cannot tell who has it', null, false],
  ['it talks', 1, true],
])('a page that does not answer is given four times where %s', async (_, busy, talks) => {
  expect(await beat(busy, talks)).toBe(4);
});
