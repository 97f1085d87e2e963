import { mapPresent } from '../lists.js';
import type { Finding, SnippetReport } from '../run.js';
import { compareLevels } from '../verdict.js';

/** What of a report cures are proven by. */
export type Proving = Pick<SnippetReport, 'findings' | 'gaps'>;

/** What a second look at a snippet shows of cures that were made in it. */
export interface Proof {
  /** What of that is still there. */
  stayed: Finding[];
  /** What was not told before, and weighs as much as what was to be cured, or more. */
  brought: Finding[];
  /** The same, and lighter: it may have stood in the shadow of what is cured. */
  shows: Finding[];
  /** Where it looks otherwise, though nothing was to be cured there. */
  altered: readonly string[];
  /** Why it could not be seen; null where it could. */
  unseen: string | null;
}

/**
 * Holds a report of a mended snippet against the one before. Findings of one kind are told apart by what they point
 * at; where that is another piece by now, by how many there are.
 * @param cured what was to be cured
 * @param altered where it looks otherwise without need
 */
export function proveCures(
  before: Proving,
  cured: readonly Finding[],
  after: Proving,
  altered: readonly string[] = [],
): Proof {
  const others = before.findings.filter((one) => !cured.includes(one));
  const known = new Set(others.map(({ key }) => key));
  const kept = new Set(after.findings.map(({ key }) => key));
  const loose = countKinds(others.filter(({ key }) => !kept.has(key)));
  const claimed = countKinds(cured);
  const [stayed, fresh]: [Finding[], Finding[]] = [[], []];
  for (const one of after.findings) {
    if (known.has(one.key) || takeOne(loose, one.id)) continue;
    (takeOne(claimed, one.id) ? stayed : fresh).push(one);
  }
  const heaviest = cured.map(({ level }) => level).sort(compareLevels)[0] ?? 'advice';
  const weighs = ({ level }: Finding) => compareLevels(level, heaviest) <= 0;
  return {
    stayed,
    brought: fresh.filter(weighs),
    shows: fresh.filter((one) => !weighs(one)),
    altered,
    unseen: findUnseen(before, after),
  };
}

function countKinds(findings: readonly Finding[]): Map<string, number> {
  const counts = new Map<string, number>();
  for (const { id } of findings) counts.set(id, (counts.get(id) ?? 0) + 1);
  return counts;
}

function takeOne(counts: Map<string, number>, id: string): boolean {
  const count = counts.get(id) ?? 0;
  counts.set(id, count - 1);
  return count > 0;
}

/** What was seen before and is not now may well be there. */
function findUnseen({ gaps: before }: Proving, { gaps: after }: Proving): string | null {
  const known = new Set(mapPresent(before, ({ why }) => why));
  return after.find(({ why }) => !known.has(why))?.why ?? null;
}

/** Whether cures hold what they promise. */
export function isProven({ stayed, brought, altered, unseen }: Proof): boolean {
  return stayed.length + brought.length + altered.length === 0 && unseen === null;
}
