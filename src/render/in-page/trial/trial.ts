import type { Change } from '../../../core/trial/change.js';
import { Before, type TrialHarm } from './harm.js';
import type { Gauge } from './measure.js';
import { listChanged, TOLERANCE, withChanges, withinScene, type TrialScene } from './scene.js';
import type { Remedy } from './search.js';

/** A declaration or an attribute that is taken out to see what it does. */
export interface RawSuspect {
  change: Change;
  /** A width that is stated, made very small: it sets the width where that helps; null for all else. */
  probe: Change | null;
  /** What its rule is for and when it holds; null where it stands on a tag. */
  rule: { selector: string; media: string | null } | null;
}

/** What each suspect does: by how many px less each target is too wide without it. */
export interface Effects {
  /** By how many px each target is too wide as it stands. */
  before: number[];
  /** For each suspect one number a target; null where it has no part in the page. */
  effects: (number[] | null)[];
  /** For each target the suspects that lessen it together, where none does by itself. */
  together: number[][];
}

/** What a cure does. */
export interface Tried {
  /** By how many px each target is still too wide. */
  left: number[];
  harm: TrialHarm;
}

/** Takes each suspect out, by itself, and puts it back. The page must not be used for anything else afterwards. */
export function findEffects(
  scene: TrialScene & { suspects: readonly RawSuspect[] },
): Effects | null {
  return withinScene(scene, (gauges, clock) => {
    const before = gauges.map((gauge) => gauge.read());
    const effects = scene.suspects.map(({ change, rule }) => {
      if (clock() || (rule !== null && !counts(rule))) return null;
      return withChanges([change], () => gauges.map((gauge, i) => before[i]! - gauge.read()));
    });
    gauges.forEach((gauge, i) => {
      // A picture without its width is as wide as it comes: there the width is not what makes it too wide.
      const { by } = scene.targets[i]!;
      if (by !== 'width' || before[i]! <= TOLERANCE || !isUnknown(effects, i)) return;
      for (const [at, { probe }] of scene.suspects.entries()) {
        if (probe === null || effects[at] === null || clock()) continue;
        effects[at]![i] = withChanges([probe], () => before[i]! - gauge.read()) ?? 0;
      }
    });
    const together = gauges.map((gauge, i) =>
      before[i]! > TOLERANCE && isUnknown(effects, i)
        ? findTogether(scene.suspects, effects, gauge, clock)
        : [],
    );
    const after = gauges.map((gauge) => gauge.read());
    // A page that is not put back as it was tells nothing.
    return after.every((now, i) => Math.abs(now - before[i]!) < 0.5)
      ? { before, effects, together }
      : null;
  });
}

/** Whether nothing by itself lessens by how much a target is too wide. */
function isUnknown(effects: readonly (number[] | null)[], target: number): boolean {
  return effects.every((one) => (one?.[target] ?? 0) < TOLERANCE);
}

/** Takes out one after the other until it tells, and puts back what was not needed for that. */
function findTogether(
  suspects: readonly RawSuspect[],
  effects: readonly (number[] | null)[],
  gauge: Gauge,
  isOver: () => boolean,
): number[] {
  const before = gauge.read();
  const lessens = (some: readonly number[]) => {
    const changes = some.map((i) => suspects[i]!.change);
    return (withChanges(changes, () => before - gauge.read()) ?? 0) > TOLERANCE;
  };
  const taken: number[] = [];
  // Those that stand in the page at all.
  for (const i of effects.keys()) {
    if (effects[i] === null || isOver()) continue;
    taken.push(i);
    if (lessens(taken)) break;
  }
  if (!lessens(taken)) return [];
  return taken.reduceRight((kept, i) => {
    const without = kept.filter((one) => one !== i);
    return without.length > 0 && !isOver() && lessens(without) ? without : kept;
  }, taken);
}

/** For each cure what it does. @param strict nothing is to move at all */
export function tryCures(
  scene: TrialScene & { cures: readonly Remedy[]; strict: boolean },
): (Tried | null)[] | null {
  return withinScene(scene, (gauges, clock, slot) => {
    const picture = new Before(slot);
    return scene.cures.map((cure) =>
      clock()
        ? null
        : withChanges(cure, () => ({
            left: gauges.map((gauge) => gauge.read()),
            harm: picture.compare(scene.strict, listChanged(cure)),
          })),
    );
  });
}

const GENERATED =
  /::?(before|after|first-line|first-letter|marker|placeholder|selection|backdrop)\b/g;

/** Whether a rule is for anything on this page, in this window. What cannot be told is tried. */
function counts({ selector, media }: { selector: string; media: string | null }): boolean {
  if (media !== null && !matchMedia(media).matches) return false;
  if (/&/.test(selector)) return true;
  try {
    const owners = selector.replace(GENERATED, '');
    return globalThis.mivketNotebook.page.querySelector(owners) !== null;
  } catch {
    return true;
  }
}
