import { expect, test } from '@jest/globals';
import type { Baseline } from '../../src/core/evidence.js';
import { getDefaultHouse } from '../../src/core/house/read.js';
import { planRenders } from '../../src/core/plan.js';
import { getEmpty, type Render } from '../../src/core/render.js';
import { doAlive, makeAlive } from '../../src/render/life/attempt.js';
import { Baselines } from '../../src/render/empty/baselines.js';
import { Breakdown } from '../../src/render/bounds/breakdown.js';
import { Budget } from '../../src/render/bounds/budget.js';
import { EmptyPages } from '../../src/render/empty/empty-pages.js';
import type { Job } from '../../src/render/life/job.js';
import type { Booth } from '../../src/render/life/booths.js';
import type { Rendered } from '../../src/render/stage.js';

/** Places whose browsers go as often as is said. */
function makePlaces(deaths: number) {
  const log: string[] = [];
  let left = deaths;
  const enter = (wanted = 'shared') => {
    log.push(wanted);
    const leave = (how: string) => Promise.resolve(void log.push(how));
    return Promise.resolve({ page: { gone: left-- > 0 }, leave } as unknown as Booth);
  };
  return { log, enter };
}

const work = ({ page }: Booth) =>
  page.gone ? Promise.reject(new Breakdown('gone')) : Promise.resolve('done');

test('what a browser takes along is done again in one of its own', async () => {
  const { log, enter } = makePlaces(2);
  const { done } = await doAlive(await enter(), () => enter('alone'), work);
  expect([done, log]).toEqual(['done', ['shared', 'broken', 'alone', 'broken', 'alone']]);
});

test('what takes every browser along is given up, with what it gave before', async () => {
  const { log, enter } = makePlaces(9);
  let tries = 0;
  const some = () => Promise.resolve(++tries === 1 ? 'a part' : null);
  const { done } = await doAlive(await enter(), () => enter('alone'), some);
  expect([done, tries, log.filter((one) => one === 'alone').length]).toEqual(['a part', 3, 2]);
});

test('what fails while its browser stands is no matter of the browser', async () => {
  const { log, enter } = makePlaces(0);
  const fail = () => Promise.reject(new Error('a fault'));
  await expect(doAlive(await enter(), () => enter('alone'), fail)).rejects.toThrow('a fault');
  await expect(makeAlive({ enter }, fail)).rejects.toThrow('a fault');
  expect(log).toEqual(['shared', 'urgent', 'used']);
});

test('the page without a snippet is made again by who asks next, as long as there is hope', async () => {
  const house = getDefaultHouse();
  const [render] = planRenders('x', house, house);
  const tell = async (failures: number) => {
    let left = failures;
    const baselines = new Baselines({
      booths: makePlaces(0),
      toEmpty: getEmpty,
      getKey: () => 'one page',
      make: () =>
        left-- > 0 ? Promise.reject(new Breakdown('gone')) : Promise.resolve({} as Baseline),
      leaves: 'used',
      signal: undefined,
    });
    return [await baselines.find(render!), await baselines.find(render!)];
  };
  expect(await tell(0)).toEqual([{}, {}]);
  expect(await tell(3)).toEqual([{}, {}]);
  expect(await tell(99)).toEqual([null, null]);
});

test('who asks for no windows is given the page in which some were searched', async () => {
  const house = getDefaultHouse();
  const [render] = planRenders('x', house, house);
  const made: Render['search'][] = [];
  const baselines = new Baselines({
    booths: makePlaces(0),
    toEmpty: getEmpty,
    getKey: ({ search }) => JSON.stringify(search),
    make: (_, { search }) => Promise.resolve(void made.push(search)).then(() => ({}) as Baseline),
    leaves: 'used',
    signal: undefined,
  });
  const searched = { ...render!, search: [{ from: 280, to: 390 }] };
  for (const one of [render!, searched, render!, searched]) await baselines.find(one);
  expect(made).toEqual([[], searched.search]);
});

test('what is asked of a page without a snippet is asked again where it failed', async () => {
  const house = getDefaultHouse();
  const [render] = planRenders('x', house, house);
  let asked = 0;
  const slot = { family: 'serif' };
  const pages = new EmptyPages({
    booths: makePlaces(0),
    leaves: 'used',
    makeJob: () => ({}) as Job,
    render: () =>
      ++asked === 1
        ? Promise.reject(new Breakdown('gone'))
        : Promise.resolve({ evidence: [{ slot }] } as unknown as Rendered),
    getKey: () => 'one page',
  });
  await expect(pages.measureSlot(render!)).rejects.toThrow('gone');
  expect(await pages.measureSlot(render!)).toBe(slot);
  expect(await pages.measureSlot(render!)).toBe(slot);
  expect(asked).toBe(2);
});

test('a budget counts what is spent, and not what is waited for', async () => {
  const budget = new Budget(40);
  await new Promise((resolve) => setTimeout(resolve, 60));
  expect(budget.isOver).toBe(false);
  const spending = budget.spend(() => new Promise((resolve) => setTimeout(resolve, 60)));
  expect(await budget.within(new Promise(() => undefined))).toBeNull();
  await spending;
  expect([budget.isOver, budget.left]).toEqual([true, 0]);
  const [free, both] = [new Budget(), new Budget()];
  const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
  await Promise.all([30, 60].map((ms) => both.spend(() => wait(ms))));
  // What goes on side by side is counted once, from the first to the last.
  expect(free.left - both.left).toBeGreaterThanOrEqual(55);
  expect(free.left - both.left).toBeLessThan(90);
  expect(await new Budget(Infinity).within(Promise.resolve('in time'))).toBe('in time');
});
