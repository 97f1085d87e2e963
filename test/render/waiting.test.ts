import { describe, expect, jest, test } from '@jest/globals';
import type { Evidence } from '../../dist/src/core/evidence.js';
import { makeViewport } from '../../dist/src/core/house/house.js';
import { readMarkup } from '../../dist/src/core/markup/markup.js';
import { getTraits } from '../../dist/src/core/markup/traits.js';
import type { Render } from '../../dist/src/core/render.js';
import { canWait } from '../../dist/src/render/job.js';
import { settleWaiting } from '../../dist/src/render/search-waiting.js';
import type { Waiting } from '../../dist/src/render/search-windows.js';

const render = (width: number, other: Partial<Render> = {}): Render => ({
  snippets: [{ name: 'beds', slot: 'column' }],
  insert: 'inline',
  viewport: makeViewport({ name: `w${width}`, width, touch: width < 600 }),
  engine: 'chromium',
  variant: 'as-is',
  search: [{ from: width, to: width + 9 }],
  ...other,
});
const [phone, desktop] = [render(320), render(1280)];

describe('a search waits', () => {
  const dark = { ...desktop.viewport, scheme: 'dark' as const };
  const named = { ...desktop.viewport, userAgent: 'Loam' };
  test.each<[string, Render, Render[], boolean]>([
    ['for a later one with scroll bars', phone, [render(390), desktop], true],
    ['never for one without', desktop, [phone], false],
    ['not for one of its own kind', phone, [render(390)], false],
    ['not for one that searches nothing', phone, [render(1280, { search: [] })], false],
    ['not where it has nothing to search', render(320, { search: [] }), [desktop], false],
    ['not for another variant', phone, [render(1280, { variant: 'filtered' })], false],
    ['not for another slot', phone, [render(1280, { snippets: [] })], false],
    ['not for another scheme', phone, [render(1280, { viewport: dark })], false],
    ['not for another browser’s name', phone, [render(1280, { viewport: named })], false],
  ])('%s', (_, one, later, waits) => {
    expect(canWait(one, later)).toBe(waits);
  });

  test.each([
    ['@media (hover: none) { p { width: 9px } }', true],
    ['@media not all and ( any-pointer : fine) { p { width: 9px } }', true],
    ['@media (min-resolution: 2dppx) { p { width: 9px } }', true],
    ['p { scrollbar-gutter: stable }', true],
    ['p { padding: env(safe-area-inset-left) }', true],
    ['p:hover { width: 9px }', false],
    ['@media (min-width: 600px) { p:not(:hover) { width: 9px } }', false],
  ])('%s', (css, asks) => {
    expect(getTraits(readMarkup(`<style>${css}</style><p>Sow</p>`)).asksKind).toBe(asks);
  });
});

describe('what waited', () => {
  const nothing = { tried: 0 } as Evidence['widths'];
  const found = { tried: 7 } as Evidence['widths'];
  const made = (elements: Evidence['elements']) =>
    ({ render: phone, elements, widths: nothing }) as Evidence;
  const waiting = (own: Evidence, came: Evidence['widths'] | null) =>
    ({ render: phone, facts: { elements: own.elements }, found: came }) as Waiting;

  test('is given what came of it', async () => {
    const own = made([]);
    const load = jest.fn<() => Promise<null>>();
    await settleWaiting([[waiting(own, found)]], [[own]], load);
    expect(own.widths).toBe(found);
    expect(load).not.toHaveBeenCalled();
  });

  test('is searched in a load of its own where nothing did', async () => {
    const own = made([]);
    const again = { ...made([]), widths: found };
    await settleWaiting([[waiting(own, null)]], [[own]], async (one) => {
      expect(one).toBe(phone);
      return [again];
    });
    expect(own.widths).toBe(found);
  });

  test('stays as it was where that broke down, and where the render itself did', async () => {
    const [own, lost] = [made([]), made([])];
    await settleWaiting([[waiting(own, null)]], [[own]], async () => null);
    await settleWaiting([[waiting(own, found)]], [[lost]], async () => null);
    expect([own.widths, lost.widths]).toEqual([nothing, nothing]);
  });
});
