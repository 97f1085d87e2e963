import { afterAll, expect, test } from '@jest/globals';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Evidence } from '../../src/core/evidence.js';
import { getDefaultHouse } from '../../src/core/house/read.js';
import { readMarkup } from '../../src/core/markup/markup.js';
import { planRenders } from '../../src/core/plan.js';
import { Keeper } from '../../dist/src/run/keeper.js';
import type { Plan } from '../../dist/src/run/request.js';
import { Faults } from '../../dist/src/run/faults.js';
import { Results } from '../../dist/src/run/results.js';
import { Budget } from '../../src/render/budget.js';
import { makeLost } from '../../src/render/lost.js';
import { makeDocument } from '../support/document.js';

const folder = mkdtempSync(join(tmpdir(), 'mivket-keeper-'));
afterAll(() => rmSync(folder, { recursive: true }));
const house = getDefaultHouse();
const [render] = planRenders('x', house, house);

test('what was lost may have been the machine’s doing: it is not used again', async () => {
  const snippet = (name: string) => ({ name, path: null, text: '<p>Sow</p>' });
  const lost = makeLost(render!, 0, 'the browser broke down twice on it');
  const cases: Record<string, Evidence> = {
    'whole.html': { ...lost, gaps: [] },
    'partial.html': { ...lost, gaps: [{ kind: 'page', why: 'late', seen: null, kept: 1 }] },
    'lost.html': lost,
    'cut.html': {
      ...lost,
      gaps: [{ kind: 'texts', why: new Budget(9000).words, seen: null, kept: 1 }],
    },
  };
  const names = Object.keys(cases);
  const keeper = await Keeper.open(folder, 'the same source');
  for (const name of names) await keeper.keep(snippet(name), [cases[name]!], new Map());
  const rest = { engines: [], house, ownPage: false, slots: [], viewports: [] };
  await keeper.finish(makeDocument([]), names.map(snippet), rest);
  const again = await Keeper.open(folder, 'the same source');
  const found = await Promise.all(
    names.map(async (name) => (await again.find(snippet(name))) !== null),
  );
  expect(found).toEqual([true, true, false, false]);
  const other = await Keeper.open(folder, 'another source');
  expect(await other.find(snippet('whole.html'))).toBeNull();
});

test('a run in which a snippet is missing is unsure', async () => {
  const snippets = ['a', 'b'].map((name) => ({ name, path: null, text: '<p>Sow</p>' }));
  const rest = {
    checks: [],
    slots: [],
    viewports: [],
    markupOnly: 'so it is',
    startedAt: new Date(),
  };
  const results = new Results(
    { snippets, house, ownPage: null, ...rest } as unknown as Plan,
    new Faults(),
  );
  const judge = (i: number) =>
    results.judge(i, { markup: readMarkup('<p>Sow</p>'), evidence: [], baselines: new Map() });
  await judge(1);
  expect((await results.makeDocument([])).verdict).toBe('unsure');
  await judge(0);
  const { verdict, snippets: found } = await results.makeDocument([]);
  expect([verdict, found.map(({ name }) => name)]).toEqual(['clear', ['a', 'b']]);
  await results.close();
});
