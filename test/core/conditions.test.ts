import { describe, expect, test } from '@jest/globals';
import { listAskedConditions, planConditions } from '../../src/core/conditions.js';
import type { AsksFact, Evidence } from '../../src/core/evidence.js';
import { getDefaultHouse } from '../../src/core/house/read.js';
import { describeCondition } from '../../src/core/judge/later.js';
import { readMarkup } from '../../src/core/markup/markup.js';
import { planRenders } from '../../src/core/plan.js';
import { makeLost } from '../../src/render/bounds/lost.js';

const house = getDefaultHouse();
const renders = planRenders('x', house, house);

/** The windows that are asked for besides those of the house, by their names. */
function plan(code: string, asks: Partial<AsksFact> = {}): string[] {
  const evidence = renders.map((render): Evidence => ({
    ...makeLost(render, 0, ''),
    asks: { files: [], page: [], ...asks },
  }));
  const planned = planConditions(evidence, { markup: readMarkup(code), house }, {});
  return planned.map(({ viewport: { name, width, height } }) => `${name} ${width}x${height}`);
}

const widths = renders.map(({ viewport }) => viewport.width);
const [narrow, wide] = [Math.min(...widths), Math.max(...widths)];
const [phone, desktop] = [narrow, wide].map(
  (width) => renders.find(({ viewport }) => viewport.width === width)!.viewport,
);

describe('what is asked for', () => {
  test('is told in the words it is done with, each once', () => {
    const css = '@media (MAX-height:  450px) {} @media (max-height: 450px) {} a { color: red }';
    expect(listAskedConditions(css)).toEqual(['(max-height: 450px']);
    expect(
      listAskedConditions('if (innerWidth<600) matchMedia("(prefers-contrast: more)")'),
    ).toEqual(['prefers-contrast', 'innerwidth<600']);
    expect(
      listAskedConditions('<p style="max-height: 40px; aspect-ratio: 2; height: 450px">'),
    ).toEqual([]);
    expect(
      listAskedConditions(':root { color-scheme: light dark } b { color-scheme: light }'),
    ).toHaveLength(1);
  });

  test('no more is kept than anybody would write by hand', () => {
    const many = Array.from({ length: 90 }, (_, i) => `(max-height: ${i}px)`).join(' ');
    expect(listAskedConditions(many)).toHaveLength(60);
    expect(listAskedConditions(`color-scheme: ${'x'.repeat(300)} dark`)[0]).toHaveLength(120);
  });
});

describe('windows that are asked for', () => {
  test('nothing is asked for, nothing is tried', () => {
    expect(plan('<p style="width: 100%">Sow</p>')).toEqual([]);
  });

  test('a condition is tried in the narrowest and the widest window', () => {
    expect(plan('<style>@media (prefers-color-scheme: dark) {}</style>')).toEqual([
      `${phone!.name} (dark) ${narrow}x${phone!.height}`,
      `${desktop!.name} (dark) ${wide}x${desktop!.height}`,
    ]);
  });

  test('what the snippet names is tried one by one, what its files name together', () => {
    const own =
      '<style>@media (prefers-contrast: more) {} @media (forced-colors: active) {}</style>';
    const named = plan(own).map((one) => /\((.*)\)/.exec(one)?.[1]);
    const both = ['more contrast', 'forced colours'];
    expect(named).toEqual([...both, ...both]);
    const files = ['prefers-contrast', 'prefers-reduced-motion', 'localstorage'];
    expect(plan('<p>Sow</p>', { files })).toEqual([
      `${phone!.name} (less motion, more contrast, second visit) ${narrow}x${phone!.height}`,
      `${desktop!.name} (less motion, more contrast, second visit) ${wide}x${desktop!.height}`,
    ]);
    expect(plan(own, { files: ['prefers-contrast'] })).toEqual(plan(own));
  });

  test('of the page around the scheme counts', () => {
    expect(plan('<p>Sow</p>', { page: ['prefers-color-scheme'] })).toHaveLength(2);
  });

  test('a window is as low as it is asked to be, and lower than it was', () => {
    const heights = (css: string) =>
      plan(`<style>@media ${css} {}</style>`).map((one) => Number(one.split('x').at(-1)));
    expect(heights('(max-height: 450px)')).toEqual([450, 450]);
    expect(heights('(min-height: 30em)')).toEqual([479, 479]);
    expect(heights('(height < 500px)')).toEqual([499, 499]);
    expect(heights('(height <= 500px)')).toEqual([500, 500]);
    expect(heights('(min-height: 2000px)')).toEqual([]);
    expect(heights('(max-height: 20px)')).toEqual([]);
    expect(plan('<script>if (innerHeight) {}</script>').every((one) => one.endsWith('x390'))).toBe(
      true,
    );
  });

  test('only a phone is held sideways', () => {
    expect(plan('<style>@media (orientation: landscape) {}</style>')).toEqual([
      `${phone!.name} (sideways) ${phone!.height}x${narrow}`,
    ]);
  });

  test('code that asks for a width is tried on both sides of it', () => {
    const names = plan('<script>if (innerWidth < 700) {}</script>');
    expect(names.map((one) => one.split(' ')[0])).toEqual(['699', '700', '701']);
    const query = '<script>matchMedia("(max-width: 512px)")</script>';
    expect(plan(query).map((one) => one.split(' ')[0])).toEqual(['511', '512', '513']);
  });
});

test('what is seen only under a condition is said to be', () => {
  const at = (...conditions: string[]) =>
    describeCondition(conditions.map((condition) => ({ condition }) as never));
  expect(at('in the dark scheme', 'in the dark scheme')).toBe(' It is so in the dark scheme.');
  expect(at('in the dark scheme', 'on a second visit')).toBe(
    ' It is so in the dark scheme, or on a second visit.',
  );
  expect(at('in the dark scheme', '')).toBe('');
  expect(at()).toBe('');
});
