import { expect, test } from '@jest/globals';
import { defineCheck, type Check } from '../../dist/src/core/check.js';
import { ToolError } from '../../dist/src/core/errors.js';
import { getDefaultHouse } from '../../dist/src/core/house/read.js';
import { readMarkup } from '../../dist/src/core/markup/markup.js';
import { planRenders } from '../../dist/src/core/plan.js';
import type { Evidence } from '../../dist/src/core/evidence.js';
import { makeLost } from '../../dist/src/render/bounds/lost.js';
import { Faults } from '../../dist/src/run/faults.js';
import { Results, type Judging } from '../../dist/src/run/results.js';

const house = getDefaultHouse();
const snippets = [{ name: 'map.html', path: null, text: '<p>Sow</p>' }];
const markup = readMarkup(snippets[0]!.text);
const [render] = planRenders('map.html', house, house);

/** A check that throws. */
const broken = defineCheck({
  id: 'pasted-twice',
  subject: 'paste',
  level: 'blocker',
  title: 'It breaks down',
  decided: 'Never.',
  standard: null,
  needs: ['elements'],
  markup: true,
  judge: () => {
    throw new TypeError('no beans');
  },
  says: () => ({ message: '', notice: '', cure: '' }),
  samples: [],
  examples: { faulty: [], sound: [] },
}) as unknown as Check;

async function judge(checks: Check[], evidence: Evidence[]) {
  const faults = new Faults();
  const plan = { snippets, house, ownPage: null, checks, slots: [], viewports: [] };
  const judging = { ...plan, markupOnly: null, startedAt: new Date() } as unknown as Judging;
  const results = new Results(judging, faults);
  const { report, notJudged } = await results.judge(0, { markup, evidence, baselines: new Map() });
  await results.close();
  return { report, notJudged, faults };
}

test('a check that breaks down is a fault of our own, with an exit code of its own', async () => {
  const { report, notJudged, faults } = await judge([broken], [makeLost(render!, 0, 'lost')]);
  expect([report.verdict, faults.exitCode]).toEqual(['unsure', 4]);
  expect(notJudged).toMatchObject([{ id: 'pasted-twice' }]);
  expect(faults.found.map(({ message }) => message)).toEqual([
    'Mivket itself failed on `pasted-twice` of map.html: no beans.',
  ]);
});

test('a snippet over which judging breaks down has a report all the same', async () => {
  const nonsense = { ...makeLost(render!, 0, 'lost'), gaps: null } as unknown as Evidence;
  const quiet = { ...broken, judge: () => [] } as unknown as Check;
  const { report, faults } = await judge([quiet], [nonsense]);
  expect([report.name, report.verdict]).toEqual(['map.html', 'unsure']);
  expect(faults.exitCode).toBe(4);
});

test('the gravest fault decides the exit code, and each is told once', async () => {
  const told: string[] = [];
  const faults = new Faults(({ message }) => told.push(message));
  expect(faults.exitCode).toBeNull();
  await faults.collect(Promise.reject(new ToolError('cannot-write', 'Full.')), 'writing');
  expect(faults.exitCode).toBe(2);
  for (let i = 0; i < 2; i++)
    await faults.collect(Promise.reject(new Error('no\nbeans')), 'sowing');
  expect(await faults.collect(Promise.resolve(), 'reaping')).toBe(true);
  expect([faults.exitCode, told]).toEqual([4, ['Full.', 'Mivket itself failed on sowing: no.']]);
});
