import { afterEach, expect, test } from '@jest/globals';
import { Spool } from '../../src/run/spool.js';

const spools: Spool<unknown>[] = [];
const { TMPDIR } = process.env;

afterEach(async () => {
  await Promise.all(spools.splice(0).map((spool) => spool.close()));
  if (TMPDIR === undefined) delete process.env.TMPDIR;
  else process.env.TMPDIR = TMPDIR;
});

async function putAndRead(results: (unknown | undefined)[]): Promise<unknown[]> {
  const spool = new Spool<unknown>();
  spools.push(spool);
  await Promise.all(
    results.map((result, i) => result !== undefined && spool.put(results.length - 1 - i, result)),
  );
  const read: unknown[] = [];
  for await (const one of spool.read()) read.push(one);
  return read;
}

test('what was put away comes back in its order, what is missing left out', async () => {
  expect(await putAndRead([])).toEqual([]);
  expect(await putAndRead([{ a: 'Bohnen – 🌱' }, undefined, [1, 2], 'x'.repeat(200_000)])).toEqual([
    'x'.repeat(200_000),
    [1, 2],
    { a: 'Bohnen – 🌱' },
  ]);
});

test('without a place to put it, it is held', async () => {
  process.env.TMPDIR = '/nowhere/at/all';
  expect(await putAndRead([1, { b: 2 }])).toEqual([{ b: 2 }, 1]);
});
