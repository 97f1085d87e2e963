import { expect, test } from '@jest/globals';
import { CHECKS } from '../../src/checks/index.js';
import { explainCheck } from '../../src/core/check.js';
import {
  formatExplanation,
  formatFindingsPage,
  formatList,
} from '../../src/formats/explanation.js';
import { paint } from '../support/paint.js';

test.each(CHECKS.map((check) => [check.id, check] as const))(
  '%s is explained whole',
  (id, check) => {
    const { notices, cures } = explainCheck(check);
    const text = formatExplanation(check, paint, 80);
    expect(text.split('\n')[0]).toBe(
      `${id}  ${{ blocker: '■', concern: '◧', advice: '□' }[check.level]} ${check.level}`,
    );
    for (const words of [check.title, ...notices, ...cures]) {
      expect(text.replace(/\s+/g, ' ')).toContain(words.replace(/\s+/g, ' '));
      expect(words).not.toMatch(/undefined|NaN|null/);
    }
    expect(Math.max(...text.split('\n').map((line) => line.length))).toBeLessThanOrEqual(80);
  },
);

test('the list has the heavier first, the page has all', () => {
  const list = formatList(CHECKS, paint, 80);
  expect(list.lastIndexOf('■ ', list.indexOf('\n\n'))).toBeLessThan(list.indexOf('◧ '));
  const page = formatFindingsPage(CHECKS);
  expect(page.match(/^## `/gm)).toHaveLength(CHECKS.length);
});

test('an example that holds in a certain house only says in which', () => {
  const check = CHECKS.find(({ id }) => id === 'blocked-by-host-policy')!;
  const text = formatExplanation(check, paint, 200);
  expect(text.replace(/\s+/g, ' ')).toContain(
    "(house: { headers: { content-security-policy: script-src 'self' } })",
  );
  expect(formatFindingsPage([check])).toContain(
    "<!-- faulty: code in an attribute; house: { headers: { content-security-policy: script-src 'self' } } -->",
  );
});
