import { afterAll, expect, test } from '@jest/globals';
import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import * as z from 'zod';
import { baselineSchema, evidenceSchema, type Evidence } from '../../src/core/evidence.js';
import { getDefaultHouse } from '../../src/core/house/read.js';
import { readMarkup } from '../../src/core/markup/markup.js';
import { planRenders } from '../../src/core/plan.js';
import { Keeper } from '../../dist/src/run/keeper.js';
import type { Plan } from '../../dist/src/run/request.js';
import { Faults } from '../../dist/src/run/faults.js';
import { KEPT_VERSION } from '../../dist/src/run/kept-run.js';
import { rejudge } from '../../dist/src/run/rejudge.js';
import { Results } from '../../dist/src/run/results.js';
import { Budget } from '../../src/render/bounds/budget.js';
import { makeLost } from '../../src/render/bounds/lost.js';
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

/** What kept evidence looks like, as a short name. Where it changes, so must `KEPT_VERSION`: then both are written here. */
const KEPT = [14, 'c9dc2b162364'];

test('a version keeps evidence of one shape', () => {
  const shapes = [evidenceSchema, baselineSchema].map((one) => JSON.stringify(z.toJSONSchema(one)));
  const digest = createHash('sha256').update(shapes.join()).digest('hex').slice(0, 12);
  expect([KEPT_VERSION, digest]).toEqual(KEPT);
});

test('of a kind that a run kept before does not have nothing was seen', async () => {
  const old = mkdtempSync(join(tmpdir(), 'mivket-old-'));
  const snippet = { name: 'a.html', path: null, text: '<p>Sow</p>' };
  const { texts: _texts, ...kept } = { ...makeLost(render!, 0, ''), gaps: [] };
  const keeper = await Keeper.open(old, null);
  await keeper.keep(snippet, [kept as unknown as Evidence], new Map());
  const rest = { engines: [], house, ownPage: false, slots: ['column'], viewports: [] };
  await keeper.finish(makeDocument([]), [snippet], rest);
  const list = JSON.parse(readFileSync(join(old, 'kept.json'), 'utf8'));
  list.snippets[0].hash = 'of an earlier version';
  writeFileSync(join(old, 'kept.json'), JSON.stringify(list));
  const { document, faults } = await rejudge({ folder: old, shown: old }, (part) => part);
  expect(faults.found).toEqual([]);
  const untold = document.notJudged.filter(({ why }) => /kept by a version that/.test(why));
  expect(untold.map(({ id }) => id)).toContain('text-too-small');
  expect(untold.map(({ id }) => id)).not.toContain('page-overflow');
  list.schema = 'mivket-kept-99';
  writeFileSync(join(old, 'kept.json'), JSON.stringify(list));
  await expect(rejudge({ folder: old, shown: 'old' }, (part) => part)).rejects.toThrow(
    'old/kept.json is not of a run that this version keeps: `schema` is missing or wrong.',
  );
  rmSync(old, { recursive: true });
});
