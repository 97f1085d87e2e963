import type { Evidence, FactKind } from '../evidence.js';
import type { Finding, SnippetReport } from '../run.js';
import { getWorst } from '../verdict.js';
import { makeSeen, type Check } from '../check.js';
import { getPlaceKey, makesTooWide } from './silence.js';

/** Findings that say something sticks out. */
const STICKS_OUT = ['page-scrolls-sideways', 'slot-overflow', 'frame-wider-than-slot'];
const FITTING = new Set<FactKind>(['page', 'slot', 'elements', 'frames']);

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
 * null where something sticks out even there, or where it was not all looked into.
 */
export function getFitsFrom(
  evidence: readonly Evidence[],
  findings: readonly Finding[],
  checks: readonly Check[],
): number | null {
  if (!STICKS_OUT.every((id) => checks.some((check) => check.id === id))) return null;
  const burst = new Set(findings.flatMap(listBurst).map(getPlaceKey));
  const widths = evidence
    .map((one) => ({
      width: hasSlot(one) ? one.slot.box.width : one.render.viewport.width,
      fits: isSeen(one) && !burst.has(getPlaceKey(makeSeen(one.render, {}))),
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

/** Where a finding means that something sticks out. */
function listBurst({ id, seen }: Finding): Finding['seen'] {
  if (id === 'frame-border-left-on') return seen.filter(makesTooWide);
  return STICKS_OUT.includes(id) ? seen : [];
}

function hasSlot({ gaps }: Evidence): boolean {
  return !gaps.some(({ kind, kept }) => kind === 'slot' && kept === null);
}

/** Whether all that could stick out was seen. */
function isSeen({ gaps }: Evidence): boolean {
  return !gaps.some(({ kind }) => FITTING.has(kind));
}
