import { describe, expect, test } from '@jest/globals';
import type { Evidence, Source } from '../../src/core/evidence.js';
import { mapSources } from '../../src/core/sources.js';
import { listRecorded } from '../support/recorded.js';

/** All that is kept under `from` and is no number. */
function listFrom(value: unknown): unknown[] {
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([key, one]: [string, unknown]) =>
    key === 'from' && typeof one === 'object' && one !== null ? [one] : listFrom(one),
  );
}

describe('places of another text', () => {
  const all: Evidence[] = listRecorded().flatMap(({ evidence }) => evidence);

  test('are found by what the schema says, in every kind of fact that has any', () => {
    const moved: Source = { offset: -1 };
    for (const one of all) {
      const told = listFrom(mapSources(one, () => moved));
      expect(told).toHaveLength(listFrom(one).length);
      expect(told.every((from) => from === moved)).toBe(true);
    }
    expect(all.flatMap(listFrom).length).toBeGreaterThan(1000);
  });

  test('are all that is changed', () => {
    for (const one of all.slice(0, 50)) expect(mapSources(one, (from) => from)).toEqual(one);
  });
});
