import { expect, test } from '@jest/globals';
import { CHECKS } from '../../src/checks/index.js';
import type { RenderOf } from '../../src/core/check.js';
import type { FactKind, TimedFact } from '../../src/core/evidence.js';
import { getDefaultHouse } from '../../src/core/house/read.js';
import { readMarkup } from '../../src/core/markup/markup.js';
import { planRenders } from '../../src/core/plan.js';
import { getPlace } from '../../src/core/render.js';

const check = CHECKS.find(({ id }) => id === 'script-time-over-limit')!;
const house = { ...getDefaultHouse(), origin: 'https://www.seedlibrary.example' };
const text = '<script src="https://tally.example/sums.js"></script>';
const [render] = planRenders('x', house, house);

const took = (ms: number, address: string | null = 'https://tally.example/sums.js'): TimedFact => ({
  ...{ from: { script: 0, line: null }, address, ms },
});

/** What is found where code took so long in each load. */
function judge(...loads: TimedFact[][]) {
  const seen = { at: getPlace({ render: render!, of: 0 }), times: { all: null, loads } };
  return check
    .judge({
      ...{ snippet: { name: 'x', path: null, text }, markup: readMarkup(text), house },
      ...{ renders: [seen as unknown as RenderOf<FactKind>], today: '2026-06-01' },
    })
    .map((fact) => check.says(fact.data, fact).message);
}

test('what scripts of others take is too much by over a fifth, in the middle of three loads', () => {
  // The house allows 200 ms on a machine that is four times slower.
  const over = [took(61)];
  expect(judge(over, over, [took(10)])).toHaveLength(1);
  expect(judge(over, [took(10)], [took(10)])).toEqual([]);
  expect(judge([took(900)], [took(60)], [took(10)])).toEqual([]);
  expect(judge()).toEqual([]);
});

test('all of them count together, and nobody else’s, whatever code calls itself', () => {
  const two = [took(40), took(50, 'https://cdn.tallyroot.example/a.js')];
  expect(judge(two, two, two)).toEqual([
    expect.stringContaining(
      'for 360 ms; the house allows 200 ms. By script: https://cdn.tallyroot.example/a.js 200 ms and https://tally.example/sums.js 160 ms.',
    ),
  ]);
  for (const own of [null, 'https://static.seedlibrary.example/a.js', 'a.js', 'blob:x'])
    expect(judge([took(900, own)])).toEqual([]);
});

test('it is timed where there are scripts of others, and all code together could be over the limit', () => {
  const calls = (all: number | null, host = 'tally.example') => {
    const traffic = [{ type: 'script', host }];
    const about = { house, markup: readMarkup(text) };
    return check.needs.calls!({ times: { all, loads: [] }, traffic } as never, about);
  };
  expect([null, 50, 51].map((all) => calls(all))).toEqual([false, false, true]);
  expect(calls(900, 'static.seedlibrary.example')).toBe(false);
});
