import { describe, expect, test } from '@jest/globals';
import type { Evidence } from '../../src/core/evidence.js';
import { makeViewport } from '../../src/core/house/house.js';
import { readMarkup } from '../../src/core/markup/markup.js';
import { getTraits } from '../../src/core/markup/traits.js';
import type { Render } from '../../src/core/render.js';
import { canPostpone } from '../../src/render/life/job.js';
import { NOTHING, type Learned } from '../../src/render/life/learned.js';
import { causesStep } from '../../src/render/steps/causes.js';
import { refusedStep } from '../../src/render/steps/refused.js';
import type { AnyStep } from '../../src/render/steps/step.js';
import { windowsStep, type Postponed, type Windows } from '../../src/render/steps/windows.js';

const render = (width: number, other: Partial<Render> = {}): Render => ({
  snippets: [{ name: 'beds', slot: 'column' }],
  insert: 'inline',
  viewport: makeViewport({ name: `w${width}`, width, touch: width < 600 }),
  engine: 'chromium',
  variant: 'as-is',
  after: null,
  scrolled: null,
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
    expect(canPostpone(one, later)).toBe(waits);
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

describe('what renders have taught', () => {
  const found = { tried: 7 } as Evidence['widths'];
  const postponed = (key: string) => ({ key }) as Postponed;
  const learn = (step: AnyStep, known: Learned, result: object) =>
    step.learns!(known, result as never);
  const search = (known: Learned, of: Partial<Windows>) =>
    learn(windowsStep, known, { widths: found, postponed: null, settled: [], ...of });

  test('is put to what was known, and changes nothing of it', () => {
    const known = Object.freeze({ ...NOTHING, cures: Object.freeze([[]]) as Learned['cures'] });
    const refused = [{ offset: 0, endOffset: 1, instead: null }];
    expect(learn(refusedStep, known, refused)).toEqual({ ...known, refused });
    expect(learn(causesStep, known, { found: [[]] }).cures).toEqual([[], []]);
    expect(known.cures).toHaveLength(1);
  });

  test('a search that was left to another render is settled by whichever makes it', () => {
    const first = search(NOTHING, { postponed: postponed('a') });
    const both = search(first, { postponed: postponed('b') });
    const learned = search(both, { settled: [{ key: 'a', widths: found }] });
    expect(both.postponed.map(({ key }) => key)).toEqual(['a', 'b']);
    expect(learned.postponed.map(({ key }) => key)).toEqual(['b']);
    expect([...learned.settled]).toEqual([['a', found]]);
  });
});
