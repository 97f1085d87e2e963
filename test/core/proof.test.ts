import { describe, expect, test } from '@jest/globals';
import { isProven, proveCures, type Proving } from '../../src/core/mend/proof.js';
import type { Finding } from '../../src/core/run.js';

const find = (id: string, key: string, cause = 1, level: Finding['level'] = 'concern') =>
  ({ id, key, cause, level }) as Finding;
const report = (...findings: Finding[]): Proving => ({ findings, gaps: [] });
const names = (all: readonly Finding[]) => all.map(({ key }) => key);

describe('a cure', () => {
  const wanted = find('off-centre', 'a');
  const before = report(wanted, find('alt-too-wordy', 'b', 2));

  test('is proven where what it cures is gone, and all else is as it was', () => {
    const proof = proveCures(before, [wanted], report(find('alt-too-wordy', 'b', 1)));
    expect(isProven(proof)).toBe(true);
  });

  test('is not where that is still there, by whatever it is known now', () => {
    for (const key of ['a', 'other']) {
      const proof = proveCures(before, [wanted], report(find('off-centre', key)));
      expect([names(proof.stayed), isProven(proof)]).toEqual([[key], false]);
    }
  });

  test('is not where it brings something as heavy', () => {
    const brought = find('text-too-small', 'c', 3);
    const proof = proveCures(before, [wanted], report(brought));
    expect([names(proof.brought), isProven(proof)]).toEqual([['c'], false]);
  });

  test('may show what is lighter, which stood in its shadow', () => {
    const proof = proveCures(before, [wanted], report(find('text-too-small', 'c', 3, 'advice')));
    expect([names(proof.shows), isProven(proof)]).toEqual([['c'], true]);
  });

  test('takes what points at another piece by now for what it was', () => {
    const proof = proveCures(before, [wanted], report(find('alt-too-wordy', 'b2', 5)));
    expect(isProven(proof)).toBe(true);
    const twice = report(find('alt-too-wordy', 'b2', 5), find('alt-too-wordy', 'b3', 6));
    expect(names(proveCures(before, [wanted], twice).brought)).toEqual(['b3']);
  });

  test('is not where less was seen afterwards', () => {
    const gap = { why: 'its host does not answer' } as Proving['gaps'][number];
    const after = { findings: [], gaps: [gap] };
    expect(proveCures(before, [wanted], after).unseen).toBe('its host does not answer');
    expect(isProven(proveCures({ ...before, gaps: [gap] }, [wanted], after))).toBe(true);
  });

  test('of another cause, or of another finding of its cause, is not counted', () => {
    const both = report(find('off-centre', 'a'), find('frame-unnamed', 'd'));
    const proof = proveCures(both, [wanted], report(find('frame-unnamed', 'd')));
    expect(isProven(proof)).toBe(true);
  });
});
