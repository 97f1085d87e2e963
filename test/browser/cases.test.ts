import { afterAll, beforeAll, describe, test } from '@jest/globals';
import { CASES, expectCase } from '../support/cases.js';
import { openLive, type Live } from '../support/live.js';
import { RECORDING, writeRecorded, type Recorded } from '../support/recorded.js';

const fresh: Record<string, Recorded> = {};
let live: Live;
beforeAll(async () => {
  live = await openLive();
}, 60_000);
afterAll(async () => {
  await live.close();
  if (RECORDING) writeRecorded('cases', fresh);
});

describe.each(Object.entries(CASES))('%s', (id, cases) => {
  test.concurrent.each(cases.map((one, i) => [one[0], i] as const))('%s', async (code, i) => {
    const recorded = await live.render(code, cases[i]![2]);
    fresh[`${id} ${i}`] = recorded;
    expectCase(id, cases[i]!, recorded);
  });
});
