import type { Level } from './house/house.js';
import type { RunDocument, Verdict } from './run.js';
import { isHeldOn } from './verdict.js';

/** How many findings of a level a run may have; of a level that is left out as the house holds on it. */
export type FindingBudget = { [level in Level]?: number };

/** What a budget makes of a run. */
export interface Spent {
  verdict: Verdict;
  over: { level: Level; found: number; allowed: number }[];
}

/** Holds a run against a budget: what is within it holds nothing, what is over it does. */
export function spend(document: RunDocument, budget: FindingBudget): Spent {
  const { counts, house } = document;
  const levels = Object.keys(counts) as Level[];
  const over = levels
    .map((level) => ({ level, found: counts[level], allowed: budget[level] ?? Infinity }))
    .filter(({ found, allowed }) => found > allowed);
  const holds = (level: Level) => isHeldOn(level, house.holdOn);
  const held = levels.some(
    (level) => budget[level] === undefined && holds(level) && counts[level] > 0,
  );
  if (over.length > 0 || held) return { verdict: 'hold', over };
  return { verdict: isBlind(document, holds) ? 'unsure' : 'clear', over };
}

/** Whether anything that could hold was not judged. */
function isBlind(
  { verdict, checks, notJudged }: RunDocument,
  holds: (level: Level) => boolean,
): boolean {
  if (verdict !== 'hold') return verdict === 'unsure';
  const heavy = checks.filter(({ level }) => level !== 'off' && holds(level));
  return notJudged.some(({ id }) => heavy.some((check) => check.id === id));
}
