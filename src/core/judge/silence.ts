import {
  getCulpritKey,
  type Check,
  type Culprit,
  type Explains,
  type Fact,
  type Measures,
  type Seen,
} from '../check.js';
import { flatMap } from '../lists.js';
import type { Level } from '../house/house.js';
import { getPlaceKey } from '../render.js';
import type { Finding } from '../run.js';
import { compareLevels, counts } from '../verdict.js';

/** A fact with the check it comes from, and how it counts in the house. */
export interface JudgedFact {
  check: Check;
  fact: Fact<unknown>;
  level: Level;
  waiver: Finding['waiver'];
}

/** One cause, one finding: takes out what another check says that it explains, of the same culprit. */
export function silenceExplained(facts: readonly JudgedFact[]): JudgedFact[] {
  const explaining = new Map<string, JudgedFact[]>();
  const ids = new Set(facts.map(({ check }) => check.id));
  for (const id of ids)
    explaining.set(
      id,
      facts.filter(({ check }) => canExplain(check, id)),
    );
  return flatMap(facts, (judged) => {
    const causes = flatMap(explaining.get(judged.check.id)!, (one) => listExplained(one, judged));
    if (causes.some(({ anywhere }) => anywhere)) return [];
    const explained = new Set(flatMap(causes, ({ seen }) => seen.map(getPlaceKey)));
    const seen = judged.fact.seen.filter((place) => !explained.has(getPlaceKey(place)));
    if (explained.size > 0 && seen.length === 0) return [];
    return [{ ...judged, fact: { ...judged.fact, seen } }];
  });
}

function canExplain({ explains = [] }: Check, id: string): boolean {
  return explains.some(({ findings }) => findings.includes(id));
}

/** Where, and whether everywhere, one finding is the cause of another. */
function listExplained(
  cause: JudgedFact,
  other: JudgedFact,
): { anywhere: boolean; seen: Seen[] }[] {
  const { check, fact } = cause;
  return (check.explains ?? [])
    .filter((rule) => rule.findings.includes(other.check.id) && explains(cause, other, rule))
    .map((rule) => ({
      anywhere: rule.anywhere === true,
      seen: fact.seen.filter((seen) => holds(rule, seen, fact.data)),
    }));
}

/** A rule that breaks down explains nothing: what it would have silenced is told. */
function holds({ when }: Explains<unknown, Measures>, seen: Seen, data: unknown): boolean {
  try {
    return when?.(seen, data) ?? true;
  } catch {
    return false;
  }
}

/** No cause stands for what is heavier than itself, nor for anything while it is waived. */
function explains(
  cause: JudgedFact,
  other: JudgedFact,
  rule: Explains<unknown, Measures>,
): boolean {
  const heavier = compareLevels(cause.level, other.level) > 0;
  return counts(cause) && (rule.heavier === true || !heavier) && fits(cause.fact, other.fact, rule);
}

/** A rule that breaks down fits nothing. */
function fits(
  cause: Fact<unknown>,
  other: Fact<unknown>,
  rule: Explains<unknown, Measures>,
): boolean {
  try {
    return rule.fits?.(other, cause.data) ?? isSameCulprit(cause, other);
  } catch {
    return false;
  }
}

function isSameCulprit(a: Fact<unknown>, b: Fact<unknown>): boolean {
  const samePlace =
    a.where.offset === b.where.offset &&
    a.where.endOffset === b.where.endOffset &&
    isMadeAlike(a.culprit, b.culprit);
  return samePlace || getCulpritKey(a.culprit) === getCulpritKey(b.culprit);
}

/** Of one script's tag may come many things. */
function isMadeAlike(a: Culprit, b: Culprit): boolean {
  if (a.at !== 'made' && b.at !== 'made') return true;
  return getCulpritKey(a) === getCulpritKey(b);
}
