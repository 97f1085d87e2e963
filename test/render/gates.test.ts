import { expect, test } from '@jest/globals';
import { Gates } from '../../dist/src/render/gate/gates.js';
import { makeKey } from '../../dist/src/render/gate/key.js';

const RULES = { origin: 'https://www.seedlibrary.example', reroute: {}, offline: true };
const PAGE = { html: '', headers: {}, root: null };
const LOAD = { snippet: '', view: '' };

test('when the thread is gone its calls fail, and the next gate is in a new one', async () => {
  const gates = new Gates({ key: makeKey(), distrusted: null, recordTo: null, recording: null });
  const first = await gates.open(RULES);
  await first.setPage(PAGE, LOAD);
  await gates.close();
  await expect(first.setPage(PAGE, LOAD)).rejects.toThrow('the thread of the gates is gone');
  await expect(first.close()).resolves.toBeUndefined();
  const second = await gates.open(RULES);
  await second.setPage(PAGE, LOAD);
  expect((await second.takeLog()).refusals).toEqual([]);
  expect(second.password).not.toBe(first.password);
  await gates.close();
});
