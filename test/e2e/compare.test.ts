import { afterAll, expect, test } from '@jest/globals';
import type { Comparison } from '../../dist/src/core/compare/candidates.js';
import type { RunComparison } from '../../dist/src/core/compare/runs.js';
import { getText, listNodes } from '../support/nodes.js';
import { Workshop } from '../support/program.js';

const shop = new Workshop();
afterAll(() => shop.close());

const FIXED = '<div style="width: 500px; background: #ddd">Spring sowing list</div>';
const FLUID = '<div style="max-width: 500px; background: #ddd">Spring sowing list</div>';
const WHERE = ['--width', '320', '--no-ranges'];

test('candidates are looked at in the same place, and the choice is left open', async () => {
  shop.write('fixed.html', FIXED);
  shop.write('fluid.html', FLUID);
  const args = ['compare', 'fixed.html', 'fluid.html', ...WHERE];
  const { code, out } = await shop.run([...args, '--format', 'json']);
  const told = JSON.parse(out) as Comparison;
  expect([code, told.schema, told.house]).toEqual([0, 'mivket-compare-1', null]);
  expect(told.candidates.map(({ name, verdict, fits }) => [name, verdict, fits])).toEqual([
    ['fixed.html', 'hold', false],
    ['fluid.html', 'clear', true],
  ]);
  expect(told.candidates.every(({ heights }) => heights[0]!.height! > 10)).toBe(true);
  expect(told.findings).toEqual([
    { id: 'page-scrolls-sideways', level: 'blocker', counts: [1, 0] },
  ]);
  expect([told.fitting, told.lighter]).toEqual([['fluid.html'], []]);
  const [row] = told.pictures;
  expect([row!.slot, row!.width, row!.alike]).toEqual(['column', 320, false]);
  // The wider box differs where the other is not, and nowhere else.
  expect(row!.of.map((one) => one!.areas.length > 0)).toEqual([true, true]);
}, 60_000);

test('pictures stand side by side in a page, and what is the same looks the same', async () => {
  shop.write(
    'sow.html',
    '<p>Sow in May.</p><script>for (const end = performance.now() + 80; performance.now() < end; );</script>',
  );
  shop.write('sow-again.html', '<p>Sow in May.</p>');
  const args = [
    'compare',
    'sow.html',
    'sow-again.html',
    ...WHERE,
    '--save',
    'beside.html',
    '--save',
    'beside.json',
  ];
  const { code, out } = await shop.run(args);
  expect([code, out]).toEqual([0, expect.stringMatching(/They look alike in \S+ at 320 px\./)]);
  const page = shop.read('beside.html');
  expect(page.match(/<img\s/g)).toHaveLength(2);
  expect(page).not.toContain('class="area"');
  const told = JSON.parse(shop.read('beside.json')) as Comparison;
  const [busy, idle] = told.candidates.map(({ scriptTime }) => scriptTime);
  expect(busy).toBeGreaterThan(30);
  expect(idle ?? 0).toBeLessThan(busy!);
}, 60_000);

test('of two kept runs what is new and gone is told without a browser', async () => {
  for (const [run, code] of [
    ['one', FIXED],
    ['two', FLUID],
  ]) {
    shop.write('in/box.html', code!);
    shop.write('in/same.html', '<p>Sow in May.</p>');
    await shop.run(['audit', 'in', ...WHERE, '--keep', run!, '--save', 'run.html', '--quiet']);
  }
  const saving = ['--save', 'runs.html'];
  const { code, out } = await shop.run(['compare', 'one', 'two', '--format', 'json', ...saving]);
  const told = JSON.parse(out) as RunComparison;
  expect([code, told.before.verdict, told.after.verdict]).toEqual([0, 'hold', 'clear']);
  expect(told.changed).toMatchObject([
    { name: 'box.html', rewritten: true, new: [], gone: [{ id: 'page-scrolls-sideways' }] },
  ]);
  const rows = told.changed[0]!.pictures;
  expect(rows.map(({ width, alike }) => [width, alike])).toEqual([[320, false]]);
  const page = shop.read('runs.html');
  expect(page.match(/<img\s/g)).toHaveLength(2);
  expect(page).toContain('class="area"');
  const words = listNodes(page).map(getText);
  expect(words).toContain('1 snippet as before');
  expect(words).toContain('page-scrolls-sideways');
  expect((await shop.run(['compare', 'one', 'one'])).out).toContain('2 snippets as before.');
  // Under another house both are judged by that.
  shop.write('lenient.yaml', 'levels: { page-scrolls-sideways: off }');
  const lenient = await shop.run(['compare', 'one', 'two', '--house', 'lenient.yaml']);
  expect(lenient.out).not.toContain('page-scrolls-sideways');
}, 120_000);

test.each([
  [['one.html'], 'There is nothing to compare one.html with'],
  [['kept', 'one.html'], 'kept is a kept run, and one.html is not'],
  [['kept', 'kept', 'kept'], 'takes two kept runs, the one before first: found 3'],
  [['one.html', 'one.html', '--save', 'x.csv'], '`--save` must end on .html or .json here'],
  [['kept', 'kept', '--save', 'x.csv'], '`--save` must end on .html or .json here'],
  [['one.html', 'one.html', '--format', 'xml'], '`--format` must be one of text, json'],
])('%j is bad usage', async (args, complaint) => {
  shop.write('one.html', '<p>x</p>');
  shop.write('kept/kept.json', '{}');
  const { code, err, out } = await shop.run(['compare', ...args]);
  expect([code, out]).toEqual([2, '']);
  expect(err).toContain(complaint);
});
