import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { getKept } from '../../src/render/browser/cache.js';
import { getCacheFolder } from '../../src/render/machine/cache-folder.js';

const folder = mkdtempSync(join(tmpdir(), 'mivket-cache-'));
const before = process.env.XDG_CACHE_HOME;

beforeAll(() => void (process.env.XDG_CACHE_HOME = folder));

afterAll(() => {
  if (before === undefined) delete process.env.XDG_CACHE_HOME;
  else process.env.XDG_CACHE_HOME = before;
  rmSync(folder, { recursive: true });
});

test('all parts are waited for after one has failed, and the first cause is told', async () => {
  let finish = () => undefined as void;
  let begin = () => undefined as void;
  const begun = new Promise<void>((resolve) => (begin = resolve));
  const late = new Promise<void>((resolve) => (finish = resolve));
  let over = false;
  const fault = (code: string) => Promise.reject(Object.assign(new Error(), { code }));
  const making = getKept('never', (at) => {
    begin();
    return [
      late.then(() => fault('EIO')),
      fault('ENOSPC'),
      late.then(() => writeFile(join(at, 'late'), '')),
    ];
  }).finally(() => (over = true));
  making.catch(() => undefined);
  await begun;
  // The failure has had every chance to end it.
  for (let i = 0; i < 20; i++) await new Promise((resolve) => setImmediate(resolve));
  const [made] = readdirSync(join(folder, 'mivket'));
  expect([over, made]).toEqual([false, expect.stringMatching(/^making-/)]);
  finish();
  await expect(making).rejects.toThrow(/unpacked in .*mivket: no room is left; XDG_CACHE_HOME/);
  expect(readdirSync(join(folder, 'mivket'))).toEqual([]);
});

test('asked for twice at once it is filled once, and then kept', async () => {
  let times = 0;
  const get = () =>
    getKept('once', (at) => {
      times++;
      return [writeFile(join(at, 'letters'), 'abc')];
    });
  const [one, two] = await Promise.all([get(), get()]);
  expect([one, await get(), times]).toEqual([two, two, 1]);
  expect(readFileSync(join(one, 'letters'), 'utf8')).toBe('abc');
});

test('a cache folder that is named by no absolute path is none', () => {
  process.env.XDG_CACHE_HOME = 'cache';
  expect(getCacheFolder()).toMatch(/^\/.*mivket$/);
  process.env.XDG_CACHE_HOME = folder;
  expect(getCacheFolder()).toBe(join(folder, 'mivket'));
});
