import { afterAll, beforeAll, describe, test } from '@jest/globals';
import { CHECKS } from '../../dist/src/checks/index.js';
import { isDrill } from '../../dist/src/core/plan.js';
import { CASES, expectCase } from '../support/cases.js';
import { openLive, type Live } from '../support/live.js';
import { RECORDING, writeRecorded, type Recorded } from '../support/recorded.js';
import { isSampled } from '../support/sample.js';

const SOME = Object.entries(CASES).map(([id, cases], at) => {
  const chosen = cases.map((one, i) => [one[0], i] as const);
  return [id, chosen.filter((_, i) => isSampled(at + i, 64))] as const;
});

const fresh: Record<string, Recorded> = {};
let live: Live;
beforeAll(async () => {
  live = await openLive();
}, 60_000);
afterAll(async () => {
  await live.close();
  if (RECORDING) writeRecorded('cases', fresh);
});

describe.each(SOME.filter(([, chosen]) => chosen.length > 0))('%s', (id, chosen) => {
  test.concurrent.each(chosen)('%s', async (code, i) => {
    const one = CASES[id]![i]!;
    const recorded = await live.render(
      code,
      one[2],
      isDrill(CHECKS.find((check) => check.id === id)!) ? 'drilled' : undefined,
    );
    fresh[`${id} ${i}`] = recorded;
    expectCase(id, one, recorded);
  });
});
