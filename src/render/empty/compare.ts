import { listMissing, type Evidence, type VisitFact } from '../../core/evidence.js';
import { CONDITIONS } from '../../core/render.js';
import { listRepainted } from '../../core/measure/painted.js';
import type { Hands } from '../life/job.js';
import type { Moment } from '../living.js';
import type { Rendered } from '../stage.js';
import type { EmptyPages } from './empty-pages.js';

/** Holds all that was seen in a render against the page without the snippet. */
export async function compareRendered(
  rendered: Rendered,
  empty: Pick<EmptyPages, 'shoot' | 'visit' | 'paint'>,
  hands: Hands,
): Promise<Rendered> {
  const evidence = await compareAll(rendered.evidence, empty, hands);
  const later: Moment[] = [];
  for (const one of rendered.later)
    later.push({ ...one, evidence: await compareAll(one.evidence, empty, hands) });
  return { ...rendered, evidence, later };
}

/** Holds evidence against the page without the snippet, where only that tells what it comes to. */
export async function compareAll(
  all: readonly Evidence[],
  empty: Pick<EmptyPages, 'shoot' | 'visit' | 'paint'>,
  hands: Hands,
): Promise<Evidence[]> {
  const compared: Evidence[] = [];
  for (const one of all) {
    const { harm, render } = one;
    const without = harm && (await empty.shoot(render, harm.with.region));
    const shown = harm ? { ...one, harm: { ...harm, without: without ?? null } } : one;
    const visited = await compareVisits(shown, empty, hands);
    compared.push(await comparePaints(visited, empty));
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
    return {
      ...evidence,
      visit: { tried: [], stuck: [], hindered: [] },
      gaps: [...gaps, ...listMissing(['visit'], NOT_TRIED)],
    };
  }
  const stuck = visit.stuck.filter((way) => !without.stuck.includes(way));
  const hindered = visit.hindered.filter((act) => !without.hindered.includes(act));
  return { ...evidence, visit: { ...visit, stuck, hindered } };
}

/** What is painted otherwise by chance is so between two pages without the snippet: the second is asked only then. */
async function comparePaints(one: Evidence, empty: Pick<EmptyPages, 'paint'>): Promise<Evidence> {
  const { paint, gaps, render } = one;
  if (paint.parts.length === 0 || CONDITIONS[render.variant].source === 'none') return one;
  let { parts } = paint;
  try {
    for (const time of [1, 2])
      if (parts.length > 0) parts = listRepainted(parts, [(await empty.paint(render, time)).parts]);
    return { ...one, paint: { ...paint, parts } };
  } catch {
    return {
      ...one,
      paint: { ...paint, parts: [] },
      gaps: [...gaps, ...listMissing(['paint'], NOT_TRIED)],
    };
  }
}
