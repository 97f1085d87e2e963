import type { Evidence } from '../evidence.js';
import type { Finding, SnippetReport } from '../run.js';
import { getWorst } from '../verdict.js';
import { makeSeen } from '../check.js';
import { getPlaceKey } from './silence.js';

/** Findings that say something sticks out. */
const STICKS_OUT = ['page-scrolls-sideways', 'slot-overflow', 'frame-wider-than-slot'];

/** Each render with the heaviest finding seen in it, in the order they were planned. */
export function reportRenders(
  evidence: readonly Evidence[],
  findings: readonly Finding[],
): SnippetReport['renders'] {
  return evidence.map((one) => {
    const { viewport, ...place } = makeSeen(one.render, {});
    const key = getPlaceKey({ viewport, ...place });
    // What only the markup shows holds wherever the markup stands.
    const here = findings.filter(
      ({ seen }) => seen.length === 0 || seen.some((place) => getPlaceKey(place) === key),
    );
    const worst = here.reduce<Finding['level'] | null>(
      (sum, finding) => getWorst(sum, finding.level),
      null,
    );
    const slotWidth = hasSlot(one) ? one.slot.box.width : null;
    return {
      slot: place.slot,
      slotWidth,
      insert: place.insert,
      viewport,
      width: place.width,
      height: one.render.viewport.height,
      density: place.density,
      scheme: place.scheme,
      engine: place.engine,
      variant: place.variant,
      worst,
    };
  });
}

/**
 * The narrowest slot width, of those rendered, from which nothing sticks out up to the widest;
 * null where something sticks out even there, or nothing was measured.
 */
export function getFitsFrom(
  evidence: readonly Evidence[],
  findings: readonly Finding[],
): number | null {
  const burst = new Set(
    findings
      .filter(({ id }) => STICKS_OUT.includes(id))
      .flatMap((finding) => finding.seen.map(getPlaceKey)),
  );
  const widths = evidence
    .filter(hasSlot)
    .map((one) => ({
      width: one.slot.box.width,
      fits: !burst.has(getPlaceKey(makeSeen(one.render, {}))),
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

function hasSlot(evidence: Evidence): boolean {
  return !evidence.gaps.some((gap) => gap.kind === 'slot' || gap.kind === 'elements');
}
