import type { Evidence, Gap, VisitFact } from '../../core/evidence.js';
import type { Hands } from '../life/job.js';
import type { EmptyPages } from './empty-pages.js';

/** Holds evidence against the page without the snippet, where only that tells what it comes to. */
export async function compareAll(
  all: readonly Evidence[],
  empty: Pick<EmptyPages, 'shoot' | 'visit'>,
  hands: Hands,
): Promise<Evidence[]> {
  const compared: Evidence[] = [];
  for (const one of all) {
    const { harm, render } = one;
    const without = harm && (await empty.shoot(render, harm.with.region));
    const shown = harm ? { ...one, harm: { ...harm, without: without ?? null } } : one;
    compared.push(await compareVisits(shown, empty, hands));
  }
  return compared;
}

/** What cannot be done without the snippet either is none of its doing. */
async function compareVisits(
  one: Evidence,
  empty: Pick<EmptyPages, 'visit'>,
  hands: Hands,
): Promise<Evidence> {
  const { stuck, hindered } = one.visit;
  if (stuck.length + hindered.length === 0 || one.render.variant !== 'as-is') return one;
  return compareVisit(one, await empty.visit(one.render, hands).catch(() => null));
}

const NOT_TRIED = 'it could not be tried without the snippet';

/** What remains of a visit, held against one without the snippet; null: that could not be tried. */
export function compareVisit(evidence: Evidence, without: VisitFact | null): Evidence {
  const { visit, gaps } = evidence;
  if (without === null) {
    const gap: Gap = { kind: 'visit', why: NOT_TRIED, seen: null, kept: null };
    return { ...evidence, visit: { tried: [], stuck: [], hindered: [] }, gaps: [...gaps, gap] };
  }
  const stuck = visit.stuck.filter((way) => !without.stuck.includes(way));
  const hindered = visit.hindered.filter((act) => !without.hindered.includes(act));
  return { ...evidence, visit: { ...visit, stuck, hindered } };
}
