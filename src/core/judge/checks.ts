import {
  addSeen,
  getFactKey,
  selectRenders,
  type Check,
  type Fact,
  type Prepared,
  type RenderOf,
} from '../check.js';
import type { FactKind } from '../evidence.js';
import { joinRanges } from '../search/ranges.js';
import type { Judged } from './judge.js';
import type { JudgedFact } from './silence.js';
import { findWaiver } from './waivers.js';

/** A check that breaks down costs itself only. */
export function attemptCheck<T>(check: Check, faults: CheckFaults, work: () => T[]): T[] {
  try {
    return work();
  } catch (error) {
    faults.set(check.id, { error });
    return [];
  }
}

/** What checks threw, by their names. */
export type CheckFaults = Map<string, { error: unknown }>;

/** Why a check says nothing, where it broke down; null where it did not. */
export function explainFaults(faults: CheckFaults, { id }: Check): string | null {
  const fault = faults.get(id);
  if (!fault) return null;
  const said = fault.error instanceof Error ? fault.error.message : String(fault.error);
  return `the check itself broke down (${said.split('\n')[0]})`;
}

/** What a check finds in the markup and in the renders that it reads. */
export function runCheck(
  check: Check,
  judged: Judged,
  prepared: readonly Prepared[],
): JudgedFact[] {
  if (!check.markup && !isRendered(check, judged)) return [];
  return judgeRenders(check, judged, selectRenders(prepared, check.needs));
}

/** What a check finds in these renders, with how it counts in the house. */
export function judgeRenders(
  check: Check,
  judged: Judged,
  renders: readonly RenderOf<FactKind>[],
): JudgedFact[] {
  const { snippet, markup, house } = judged;
  const about = { snippet, markup, house, renders, today: judged.today };
  const tells = renders.length === 0 ? check.unrendered : undefined;
  const facts: Fact<unknown>[] = tells?.(about) ?? check.judge(about);
  if (facts.length === 0) return [];
  return mergeFacts(facts).map((fact) => {
    const stated = house.levels[check.id] ?? fact.level ?? check.level;
    const level = stated === 'off' ? check.level : stated;
    const say = () => check.says(fact.data, fact).message;
    const waiver = findWaiver(house, { id: check.id, snippet, fact, say }, judged.today);
    return { check, fact, level, waiver };
  });
}

/** The same fault at four widths is one finding seen four times. */
function mergeFacts(facts: readonly Fact<unknown>[]): Fact<unknown>[] {
  const merged = new Map<string, Fact<unknown>>();
  for (const fact of facts) {
    const key = getFactKey(fact);
    const known = merged.get(key);
    if (known) {
      addSeen(known.seen, fact.seen);
      known.ranges = joinRanges([...(known.ranges ?? []), ...(fact.ranges ?? [])]);
    } else merged.set(key, { ...fact, seen: [...fact.seen] });
  }
  return [...merged.values()];
}

/** Whether any of the renders that a check reads was made. */
function isRendered({ needs }: Check, { evidence }: Judged): boolean {
  return evidence.some(({ render }) => needs.variants.includes(render.variant));
}
