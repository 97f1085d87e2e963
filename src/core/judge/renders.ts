import type { Check } from '../check.js';
import { isMeasured, type Evidence, type FactKind } from '../evidence.js';
import type { Markup } from '../markup/markup.js';
import { getPlace, getPlaceKey } from '../render.js';
import type { Finding, SnippetReport } from '../run.js';
import { getWorst } from '../verdict.js';
import type { Mark } from './marks.js';
import { reportSights } from './sights.js';

const FITTING = new Set<FactKind>(['page', 'slot', 'elements', 'frames']);

/**
 * Each render with the heaviest finding seen in it, in the order they were planned.
 * @param marks the culprits in each
 */
export function reportRenders(
  markup: Markup,
  evidence: readonly Evidence[],
  findings: readonly Finding[],
  marks: readonly Mark[][],
): SnippetReport['renders'] {
  return evidence.map((one, i) => {
    const place = getPlace(one);
    const key = getPlaceKey(place);
    // What only the markup shows holds wherever the markup stands.
    const here = findings.filter(
      ({ seen }) => seen.length === 0 || seen.some((place) => getPlaceKey(place) === key),
    );
    const worst = here.reduce<Finding['level'] | null>(
      (sum, finding) => getWorst(sum, finding.level),
      null,
    );
    const slotWidth = isMeasured(one, 'slot') ? one.slot.box.width : null;
    return {
      ...place,
      slotWidth,
      height: one.render.viewport.height,
      worst,
      shot: one.shot,
      marks: marks[i] ?? [],
      ...reportSights(markup, one),
    };
  });
}

/** What was run, and what there is to run. */
export interface Ran {
  checks: readonly Check[];
  known: readonly Check[];
}

/**
 * The narrowest slot width, of those rendered, from which nothing is too wide up to the widest;
 * null where something is even there, or where it was not all looked into.
 */
export function getFitsFrom(
  evidence: readonly Evidence[],
  findings: readonly Finding[],
  { checks, known }: Ran,
): number | null {
  const fitting = known.filter(({ tooWide }) => tooWide);
  if (!fitting.every(({ id }) => checks.some((check) => check.id === id))) return null;
  const burst = new Set(
    findings.flatMap(({ id, seen }) => {
      const check = fitting.find((one) => one.id === id);
      return check ? seen.filter((one) => check.tooWide!(one)).map(getPlaceKey) : [];
    }),
  );
  const widths = evidence
    .filter(({ render }) => render.variant === 'as-is')
    .map((one) => ({
      width: isMeasured(one, 'slot') ? one.slot.box.width : one.render.viewport.width,
      fits: isSeen(one) && !burst.has(getPlaceKey(getPlace(one))),
    }))
    .sort((a, b) => b.width - a.width);
  const tooWide = new Set(widths.filter(({ fits }) => !fits).map(({ width }) => width));
  let from: number | null = null;
  for (const { width } of widths) {
    if (tooWide.has(width)) break;
    from = width;
  }
  return from;
}

/** Whether all that could be too wide was seen. */
function isSeen({ gaps }: Evidence): boolean {
  return !gaps.some(({ kind }) => FITTING.has(kind));
}
