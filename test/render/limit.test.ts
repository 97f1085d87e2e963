import { describe, expect, test } from '@jest/globals';
import { within, withinTalk } from '../../src/render/bounds/limit.js';
import { patiently } from '../../src/render/bounds/patience.js';

test('what is late is null, what fails fails', async () => {
  const never = new Promise<string>(() => undefined);
  expect(await within(Promise.resolve('x'), 1000)).toBe('x');
  expect(await within(never, 1)).toBeNull();
  await expect(within(Promise.reject(new Error('no')), 1000)).rejects.toThrow('no');
});

test('what talks is given more time, but not without end', async () => {
  const never = new Promise<string>(() => undefined);
  const asked: number[] = [];
  const makePage = (talks: boolean[]) => ({
    get talks() {
      asked.push(1);
      return talks.shift() ?? true;
    },
  });
  expect(await withinTalk(makePage([false]), never, 1)).toBeNull();
  expect(asked.splice(0)).toHaveLength(1);
  expect(await withinTalk(makePage([]), never, 1)).toBeNull();
  expect(asked.splice(0).length).toBeGreaterThan(1);
  let answer: (text: string) => void = () => undefined;
  const late = new Promise<string>((resolve) => (answer = resolve));
  const page = {
    get talks() {
      answer('at last');
      return true;
    },
  };
  expect(await withinTalk(page, late, 1)).toBe('at last');
});

describe('what a machine had no processor for', () => {
  const never = new Promise<string>(() => undefined);
  const watch = (free: number[]) => {
    const begun: number[] = [];
    const begin = () => {
      begun.push(1);
      return () => free.shift() ?? 0;
    };
    return { begun, begin };
  };

  test('is given more time, but not without end', async () => {
    const { begun, begin } = watch([]);
    expect(await patiently(never, 1, begin)).toBeNull();
    expect(begun).toHaveLength(4);
  });

  test('is given no more once processors were free', async () => {
    const { begun, begin } = watch([0.1, 0.2]);
    expect(await patiently(never, 1, begin)).toBeNull();
    expect(begun).toHaveLength(2);
  });

  test('comes late, and counts', async () => {
    let answer: (text: string) => void = () => undefined;
    const late = new Promise<string>((resolve) => (answer = resolve));
    const begin = () => () => {
      answer('at last');
      return 0;
    };
    expect(await patiently(late, 1, begin)).toBe('at last');
  });

  test('fails where it fails', async () => {
    await expect(patiently(Promise.reject(new Error('no')), 1)).rejects.toThrow('no');
  });
});
