import { describe, expect, test } from '@jest/globals';
import { CHECKS } from '../src/checks/index.js';
import { FINDING_IDS } from '../src/core/words/finding-ids.js';
import { CASES, expectCase } from './support/cases.js';
import {
  judgeRecorded,
  listExamples,
  listRecorded,
  readRecorded,
  readTold,
  reportOnce,
  RETELLING,
  tellRecorded,
  tidyBaselines,
  writeTold,
  type Recorded,
} from './support/recorded.js';

const recorded: Record<string, Recorded> = Object.fromEntries(
  listRecorded().map(({ key, ...one }) => [key, one]),
);

describe('every example, on recorded evidence', () => {
  test.each(listExamples())('$key', ({ key, code, under, check, kind }) => {
    const known = recorded[key];
    // A changed example must be rendered anew: `npm run record`.
    expect(known?.code).toBe(code);
    expect(known?.under).toEqual(under);
    const { findings } = reportOnce(known!);
    expect(findings.map(({ id }) => id)).toEqual(kind === 'faulty' ? [check.id] : []);
    for (const finding of findings) {
      const { where, excerpt } = finding;
      expect(code.slice(where.offset, where.endOffset).trim()).not.toBe('');
      expect(excerpt).not.toBe('');
      for (const words of [finding.message, finding.notice, finding.cure])
        expect(words).toMatch(/^[^\n]+[.?”]$/);
    }
  });

  test.each(listExamples().filter(({ key }) => recorded[`${key} mended`]))(
    '$key, mended',
    ({ key, check }) => {
      expect(judgeRecorded(recorded[`${key} mended`]!).map(({ id }) => id)).not.toContain(check.id);
    },
  );
});

describe('every hard case, on recorded evidence', () => {
  describe.each(Object.entries(CASES))('%s', (id, cases) => {
    const known = readRecorded('cases', id);
    test.each(cases.map((one, i) => [one[0], i] as const))('%s', (code, i) => {
      // A changed case must be rendered anew: `npm run record`.
      expect(known[i]?.code).toBe(code);
      expect(known[i]?.under).toEqual(cases[i]![2]);
      expectCase(id, cases[i]!, known[i]!);
    });
  });
});

/**
 * Where words, levels, places, windows or mends are meant to be other ones: `npm run retell`, and look through what
 * has changed.
 */
describe('all that is said of examples and hard cases is what it was', () => {
  if (RETELLING) tidyBaselines();
  test.each(CHECKS.map(({ id }) => id))('%s', (id) => {
    const all = { ...readRecorded('examples', id), ...readRecorded('cases', id) };
    const told = Object.fromEntries(
      Object.entries(all).map(([key, one]) => [key, tellRecorded(one)]),
    );
    if (RETELLING) writeTold(id, told);
    expect(told).toEqual(readTold(id));
  });
});

describe('every check', () => {
  test.each(CHECKS.map((check) => [check.id, check] as const))(
    '%s has what it needs',
    (id, check) => {
      expect(FINDING_IDS).toContain(id);
      expect(Object.isFrozen(check)).toBe(true);
      expect(check.examples.faulty.length).toBeGreaterThan(0);
      expect(check.examples.sound.length).toBeGreaterThan(0);
      expect(check.markup !== false || check.needs.kinds.length > 0).toBe(true);
    },
  );

  test('none is there twice, and they are in order', () => {
    const ids = CHECKS.map(({ id }) => id);
    expect(ids).toEqual([...new Set(ids)].sort());
  });
});

test('what weighs most is named by its kind', () => {
  const recorded = readRecorded('examples', 'weight-over-limit');
  const [finding] = judgeRecorded(recorded['faulty: a picture of two megabytes']!);
  expect(finding!.message).toContain('By kind: pictures 1.');
  expect(finding!.cure).toMatch(/: pictures\.$/);
});
