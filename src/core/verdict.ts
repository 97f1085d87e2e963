import type { Counts, Finding, Verdict } from './run.js';
import type { Level } from './house/house.js';

const ORDER: Level[] = ['blocker', 'concern', 'advice'];

/** Heavier levels first. */
export function compareLevels(a: Level, b: Level): number {
  return ORDER.indexOf(a) - ORDER.indexOf(b);
}

/** The heavier of two levels; null stands for none. */
export function getWorst(a: Level | null, b: Level | null): Level | null {
  if (!a || !b) return a ?? b;
  return compareLevels(a, b) <= 0 ? a : b;
}

/** Whether a level is one to hold on. */
export function isHeldOn(level: Level, holdOn: Level): boolean {
  return compareLevels(level, holdOn) <= 0;
}

/** Whether a finding counts: not where a waiver in force accepts it. */
export function counts(finding: Pick<Finding, 'waiver'>): boolean {
  return !finding.waiver || finding.waiver.expired;
}

/** How many findings count, by level. */
export function countLevels(findings: readonly Finding[]): Counts {
  const sum: Counts = { blocker: 0, concern: 0, advice: 0 };
  for (const finding of findings.filter(counts)) sum[finding.level]++;
  return sum;
}

/**
 * `hold` where a finding reaches the level to hold on; else `unsure` where a check that could have
 * found one did not judge; else `clear`.
 */
export function getVerdict(findings: readonly Finding[], holdOn: Level, blind: boolean): Verdict {
  const held = findings.some((finding) => counts(finding) && isHeldOn(finding.level, holdOn));
  if (held) return 'hold';
  return blind ? 'unsure' : 'clear';
}

/** The verdict over several snippets: hold wins over unsure, unsure over clear. */
export function getOverall(verdicts: readonly Verdict[]): Verdict {
  if (verdicts.includes('hold')) return 'hold';
  return verdicts.includes('unsure') ? 'unsure' : 'clear';
}
