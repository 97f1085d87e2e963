import { afterEach, expect, test } from '@jest/globals';
import { Spool } from '../../src/run/spool.js';

const spools: Spool<unknown>[] = [];

afterEach(async () => {
  await Promise.all(spools.splice(0).map((spool) => spool.close()));
});

async function putAndRead(
  results: (unknown | undefined)[],
  spool = new Spool<unknown>(),
): Promise<unknown[]> {
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
  const nowhere = new Spool<unknown>(() => Promise.reject(new Error('no room is left')));
  expect(await putAndRead([1, { b: 2 }], nowhere)).toEqual([{ b: 2 }, 1]);
});
