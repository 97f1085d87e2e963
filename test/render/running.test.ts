import { describe, expect, test } from '@jest/globals';
import type { FactKind } from '../../src/core/evidence.js';
import { measureRan } from '../../src/render/chromium/coverage.js';
import { asksRunning } from '../../src/render/steps/once.js';
import { listTimes, listWork } from '../../src/render/chromium/work.js';

const range = (startOffset: number, endOffset: number, count: number) => ({
  startOffset,
  endOffset,
  count,
});

describe('how much of a script has run', () => {
  test('is what the innermost ranges say', () => {
    const all = { ranges: [range(0, 100, 1)] };
    expect(measureRan([all])).toEqual({ length: 100, ran: 100 });
    const never = { ranges: [range(10, 40, 0)] };
    expect(measureRan([all, never])).toEqual({ length: 100, ran: 70 });
    const called = { ranges: [range(50, 90, 2), range(60, 70, 0)] };
    expect(measureRan([called, never, all])).toEqual({ length: 100, ran: 60 });
  });

  test('is nothing of one that never ran', () => {
    expect(measureRan([{ ranges: [range(0, 10, 0)] }])).toEqual({ length: 10, ran: 0 });
    expect(measureRan([])).toEqual({ length: 0, ran: 0 });
  });
});

describe('who is at work', () => {
  const node = (id: number, url: string, hitCount: number, children: number[] = []) => ({
    ...{ id, hitCount, children },
    callFrame: { url, functionName: '', scriptId: '1', lineNumber: id, columnNumber: 0 },
  });

  test('is told by its calls, the innermost first, with its share of all looks', () => {
    const nodes = [
      node(1, '', 0, [2, 4]),
      node(2, 'https://a.example/', 1, [3]),
      node(3, 'https://b.example/x.js', 3),
      node(4, '', 6),
    ];
    const told = listWork({ nodes }).map(({ share, calls }) => [
      share,
      calls.map(({ url }) => url),
    ]);
    expect(told).toEqual([
      [0.1, ['https://a.example/']],
      [0.3, ['https://b.example/x.js', 'https://a.example/']],
    ]);
  });

  test('for how long is by the looks at it, and not by what others took in between', () => {
    const nodes = [
      node(1, '', 0, [2]),
      node(2, 'https://a.example/', 0, [3]),
      node(3, 'https://b.example/x.js', 0),
    ];
    const samples = [3, 3, 2, 1, 3, 3];
    // µs since the look before: for 50 ms others had the processor.
    const timeDeltas = [900, 1000, 1500, 50_000, 1000, -3];
    const told = listTimes({ nodes, samples, timeDeltas }).map(({ ms, calls }) => [
      Math.round(1000 * ms),
      calls[0]!.url,
    ]);
    expect(told).toEqual([
      [2000, 'https://a.example/'],
      [2500, 'https://b.example/x.js'],
    ]);
    expect(listTimes({ nodes })).toEqual([]);
  });
});

test('how code runs is asked with hands, for whoever reads one of the kinds that tell it', () => {
  const keys = { keys: true, swipes: false };
  const none = { keys: false, swipes: false };
  const ask = (hands: typeof keys, ...wants: FactKind[]) =>
    asksRunning({ hands, wants: new Set(wants) });
  expect([ask(keys, 'times'), ask({ ...none, swipes: true }, 'code')]).toEqual([true, true]);
  expect([ask(none, 'times', 'code'), ask(keys, 'unrest')]).toEqual([false, false]);
});
