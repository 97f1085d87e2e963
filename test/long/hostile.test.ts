import { afterAll, afterEach, beforeAll, expect, test } from '@jest/globals';
import { readdirSync } from 'node:fs';
import { listHostile, openHostileVendor, type HostileVendor } from '../support/hostile.js';
import { findProcesses } from '../support/processes.js';
import { getIds, Workshop } from '../support/program.js';

const shop = new Workshop();
let vendor: HostileVendor;

beforeAll(async () => {
  vendor = await openHostileVendor(shop);
});

afterAll(() => {
  vendor.close();
  shop.close();
});

afterEach(() => {
  // Nothing may be left: no profile, no browser that works on one.
  expect(readdirSync(shop.temporary)).toEqual([]);
  expect(findProcesses(shop.temporary)).toEqual([]);
});
const TRIED = listHostile(2);

test('costs only itself, and is named for what it does', async () => {
  TRIED.forEach(([, code], i) => shop.write(`hostile/${i}.html`, code));
  shop.write('hostile/sound.html', '<p>Sow beans in May.</p>');
  const { document } = await shop.audit(['hostile', '--width', '390', '--jobs', '2']);
  const ids = getIds(document);
  const found = TRIED.map(([name], i) => [name, [...new Set(ids[`${i}.html`])]]);
  expect(found).toEqual(TRIED.map(([name, , expected]) => [name, expected]));
  expect(ids['sound.html']).toEqual([]);
  const loop = document.snippets.find(({ name }) => name === '0.html')!;
  expect(loop.findings[0]!.where).toMatchObject({ line: 2, column: 1 });
  expect(new Set(loop.gaps.map(({ why }) => why))).toEqual(new Set(['its code had to be stopped']));
  // Browsers follow twenty.
  expect(vendor.asked.filter((path) => path === '/on').length).toBeLessThan(25);
}, 500_000);

test('a message of 70 MB, or many of 1 kB, are no hang and end nothing', async () => {
  const many = process.env.MIVKET_ALL ? 1e5 : 1e4;
  shop.write('loud/long.html', '<p>x</p><script>console.error("x".repeat(70e6))</script>');
  shop.write(
    'loud/many.html',
    `<p>x</p><script>for (let i = 0; i < ${many}; i++) console.error("x".repeat(1000))</script>`,
  );
  const { code, document } = await shop.audit(['loud', '--width', '390', '--jobs', '1']);
  expect(getIds(document)).toEqual({ 'long.html': [], 'many.html': ['script-error'] });
  expect(code).toBe(0);
}, 120_000);

test('5,000 frames take no more time than there is, and are told as far as they were seen', async () => {
  const code = '<iframe style="border: 0; width: 100%; height: 99px"></iframe>'.repeat(5_000);
  shop.write('frames/many.html', code);
  shop.write('frames/sound.html', '<p>Sow beans in May.</p>');
  const args = ['frames', '--width', '390', '--time-limit', '6s'];
  const { document } = await shop.audit(args);
  const ids = getIds(document);
  expect(new Set(ids['many.html'])).toEqual(new Set(['frame-unnamed']));
  expect(ids['sound.html']).toEqual([]);
  expect(document.verdict).toBe('unsure');
}, 120_000);

test('one bad snippet among twenty costs only itself', async () => {
  for (let i = 0; i < 19; i++) shop.write(`twenty/${i}.html`, `<p>Bed ${i}</p>`);
  shop.write('twenty/bad.html', '<script>for (;;) {}</script>');
  const { document } = await shop.audit(['twenty', '--width', '390']);
  const held = document.snippets.filter(({ verdict }) => verdict !== 'clear');
  expect(held.map(({ name }) => name)).toEqual(['bad.html']);
  expect(document.snippets).toHaveLength(20);
}, 120_000);
