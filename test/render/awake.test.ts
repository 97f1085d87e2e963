import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { setAlarm, Stopwatch, timed } from '../../src/render/bounds/awake.js';
import { Budget } from '../../src/render/bounds/budget.js';
import { within } from '../../src/render/bounds/limit.js';

let frozen = 0;

beforeEach(() => {
  jest.useFakeTimers();
  frozen = 0;
  const now = performance.now.bind(performance);
  jest.spyOn(performance, 'now').mockImplementation(() => now() + frozen);
});

afterEach(() => {
  jest.restoreAllMocks();
  jest.useRealTimers();
});

/** The machine stands still for an hour: its clock goes on, and nobody does anything. */
const freeze = () => (frozen += 3_600_000);
const never = new Promise<string>(() => undefined);

describe('an alarm', () => {
  test('rings when it is time, once', () => {
    const ring = jest.fn();
    setAlarm(2600, ring);
    jest.advanceTimersByTime(2599);
    expect(ring).not.toHaveBeenCalled();
    jest.advanceTimersByTime(3000);
    expect(ring).toHaveBeenCalledTimes(1);
  });

  test('does not ring for what was slept', () => {
    const ring = jest.fn();
    setAlarm(5000, ring);
    jest.advanceTimersByTime(400);
    freeze();
    jest.advanceTimersByTime(3000);
    expect(ring).not.toHaveBeenCalled();
    jest.advanceTimersByTime(1600);
    expect(ring).toHaveBeenCalledTimes(1);
  });

  test('does not ring once it is put off', () => {
    const ring = jest.fn();
    const putOff = setAlarm(1000, ring);
    jest.advanceTimersByTime(600);
    putOff();
    jest.advanceTimersByTime(5000);
    expect(ring).not.toHaveBeenCalled();
  });
});

describe('a watch', () => {
  test('takes the time while it runs, and a second of what was slept', () => {
    const watch = new Stopwatch();
    jest.advanceTimersByTime(500);
    expect(watch.ms).toBe(0);
    watch.start();
    jest.advanceTimersByTime(2000);
    expect(watch.ms).toBe(2000);
    freeze();
    expect(watch.ms).toBe(3000);
    jest.advanceTimersByTime(250);
    watch.stop();
    jest.advanceTimersByTime(9000);
    expect(watch.ms).toBe(3000);
    watch.start();
    jest.advanceTimersByTime(100);
    expect(watch.ms).toBe(3100);
  });

  test('stops when what it was for is done, or fails', async () => {
    const held: Stopwatch[] = [];
    const keep = (watch: Stopwatch) => Promise.resolve(held.push(watch));
    await timed(keep);
    await expect(
      timed((watch) => keep(watch).then(() => Promise.reject(new Error('no')))),
    ).rejects.toThrow('no');
    jest.advanceTimersByTime(1000);
    expect(held.map(({ ms }) => ms)).toEqual([0, 0]);
    expect(jest.getTimerCount()).toBe(0);
  });
});

test('a machine that slept costs a snippet nothing of its time', async () => {
  const budget = new Budget(10_000);
  const work = budget.spend(() => within(never, 4000));
  await jest.advanceTimersByTimeAsync(1000);
  freeze();
  await jest.advanceTimersByTimeAsync(2000);
  expect(budget.isOver).toBe(false);
  await jest.advanceTimersByTimeAsync(1000);
  expect(await work).toBeNull();
  expect(budget.left).toBeGreaterThanOrEqual(6000);
});
