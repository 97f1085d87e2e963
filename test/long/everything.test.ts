import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Evidence } from '../../dist/src/core/evidence.js';
import { openLive, type Live } from '../support/live.js';
import { isSampled } from '../support/sample.js';
import { listElements, listFunctions, listReckoned } from '../support/everything.js';

let live: Live;
beforeAll(async () => {
  live = await openLive();
}, 60_000);
afterAll(() => live.close());

const styled = (declarations: readonly string[]) =>
  declarations.map((one) => `<b style='${one}'>Sow</b>`).join('\n');

/** More than 40 of them are not tried by keys and fingers. */
const FRAMED = /^(iframe|object|embed|frame)$/;

const ALL: [string, string, number][] = [
  ['every function of CSS', styled(listFunctions()), 90],
  ['every unit, and every way to reckon', styled(listReckoned()), 150],
  [
    'every element with each of its attributes',
    listElements((tag) => !FRAMED.test(tag)).join('\n'),
    350,
  ],
  [
    'every iframe with each of its attributes',
    listElements((tag) => tag === 'iframe').join('\n'),
    15,
  ],
  [
    'every object with each of its attributes',
    listElements((tag) => /^(object|embed|frame)$/.test(tag)).join('\n'),
    15,
  ],
];

const getGaps = (evidence: readonly Evidence[]) =>
  evidence.flatMap(({ gaps, render }) =>
    gaps.map(({ kind, why }) => `${render.viewport.name} ${kind}: ${why}`),
  );

const SOME = ALL.filter((_, at) => isSampled(at, 3));

describe('nothing that the standards know is too much for us', () => {
  test.each(SOME)(
    'in a snippet: %s',
    async (_, code, least) => {
      expect(code.split('\n').length).toBeGreaterThan(least);
      expect(getGaps((await live.render(code)).evidence)).toEqual([]);
    },
    60_000,
  );

  test.each(SOME.filter((_, at) => isSampled(at, 2)))(
    'in the house’s page: %s',
    async (_, code) => {
      const page = `<!doctype html><main data-mivket-slot="column"></main>\n<div>${code}</div>`;
      expect(getGaps((await live.render('<p>Sow</p>', { page })).evidence)).toEqual([]);
    },
    60_000,
  );
});
