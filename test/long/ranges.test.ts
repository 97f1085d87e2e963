import { afterAll, beforeAll, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Evidence, Interval } from '../../dist/src/core/evidence.js';
import { makeViewport } from '../../dist/src/core/house/house.js';
import { getDefaultHouse } from '../../dist/src/core/house/read.js';
import { readMarkup } from '../../dist/src/core/markup/markup.js';
import { listTooWide } from '../../dist/src/core/measure/too-wide.js';
import { planRenders } from '../../dist/src/core/plan.js';
import type { Render } from '../../dist/src/core/render.js';
import { findBrowser } from '../../dist/src/render/browser/find.js';
import { ALL_WANTED } from '../../dist/src/core/wants.js';
import { Renderer } from '../../dist/src/render/renderer.js';
import { layouts } from '../support/layouts.js';

/**
 * Ranges as they were searched for on a copy of the page, held against the page itself at each width:
 * `npm run agree` takes 40 layouts and every width, the tests a few layouts, the edges and some widths more.
 */
const COUNT = Number(process.env.MIVKET_RANGES ?? 6);
/** Other seeds, other layouts. */
const SEED = Number(process.env.MIVKET_SEED ?? 1);
const EVERY = process.env.MIVKET_RANGES !== undefined;
const SEARCH: Interval = { from: 280, to: 1400 };

const house = getDefaultHouse();
let renderer: Renderer;

beforeAll(async () => {
  renderer = await Renderer.open({
    program: await findBrowser(),
    house,
    ownPage: null,
    root: null,
    offline: true,
    wants: { ...ALL_WANTED, 'as-is': ['page', 'slot', 'elements', 'frames', 'widths'] },
  });
});
afterAll(() => renderer.close());

test(
  `the ranges of ${COUNT} layouts are those of the page`,
  async () => {
    const property = fc.asyncProperty(layouts(), fc.nat(), async ({ code }, offset) => {
      const searched = await render(code, planRenders('x', house, { ...house, search: SEARCH }));
      const spans = searched.flatMap(({ widths }) => widths.spans);
      // Where only loads could tell nothing is claimed.
      if (searched.some(({ widths }) => widths.unsearched !== null)) return;
      const widths = EVERY ? listEvery() : listSome(spans, offset);
      const views = widths.map((width) => at(width, searched[0]!));
      const wrong = (await render(code, views)).flatMap((one) => {
        const { width } = one.render.viewport;
        const real = list(one);
        const said = spans.filter(({ from, to }) => from <= width && width <= to).map(getKey);
        return real.sort().join() === said.sort().join() ? [] : [`${width}: ${said} for ${real}`];
      });
      expect(wrong).toEqual([]);
    });
    await fc.assert(property, {
      ...{ seed: SEED, numRuns: COUNT, interruptAfterTimeLimit: COUNT * 25_000 },
    });
  },
  COUNT * 30_000,
);

async function render(code: string, renders: readonly Render[]): Promise<Evidence[]> {
  const snippet = { name: 'x', path: null, text: code };
  return renderer.renderSnippet(snippet, readMarkup(code), renders, () => undefined);
}

function at(width: number, { render }: Evidence): Render {
  const touch = width <= 579;
  const viewport = makeViewport({ name: `w${width}`, width, touch, density: touch ? 2 : 1 });
  return { ...render, viewport: { ...viewport, height: touch ? 740 : 800 }, search: [] };
}

function listEvery(): number[] {
  return Array.from({ length: SEARCH.to - SEARCH.from + 1 }, (_, i) => SEARCH.from + i);
}

function listSome(spans: readonly Interval[], offset: number): number[] {
  const edges = spans.flatMap(({ from, to }) => [from - 1, from, to, to + 1]);
  const others = Array.from({ length: 12 }, (_, i) => SEARCH.from + ((offset + i * 97) % 1120));
  const inside = [...edges, ...others].filter((one) => one >= SEARCH.from && one <= SEARCH.to);
  return [...new Set(inside)].sort((a, b) => a - b);
}

function list(one: Evidence): string[] {
  const found = listTooWide({ ...one, baseline: null });
  return found.map(({ for: what, element }) => getKey({ for: what, element }));
}

function getKey({
  for: what,
  element,
}: {
  for: string;
  element: { from: object; selector: string | null } | null;
}): string {
  return `${what} ${element && JSON.stringify([element.from, element.selector])}`;
}
