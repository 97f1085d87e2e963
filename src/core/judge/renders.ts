import type { Check } from '../check.js';
import { FITTING_KINDS, isMeasured, type Evidence } from '../evidence.js';
import { flatMap, mapPresent } from '../lists.js';
import type { Markup } from '../markup/markup.js';
import { CONDITIONS, getPlace, getPlaceKey, nameRoom, type Place } from '../render.js';
import { TOLERANCE } from '../measure/culprits.js';
import type { Finding, SnippetReport } from '../run.js';
import { counts, getWorst } from '../verdict.js';
import type { Mark } from './marks.js';
import { joinRanges } from '../search/ranges.js';
import { reportSights } from './sights.js';

/** How a render fits: the width of its slot, px, and whether nothing sticks out; null where that is not known. */
export interface Fit {
  width: number;
  fits: boolean | null;
}

/** What is told of each render besides what was seen in it. */
export interface RenderNotes {
  /** The culprits in each. */
  marks: readonly Mark[][];
  fits: readonly Fit[];
}

/** Each render with the heaviest finding seen in it, in the order they were planned. */
export function reportRenders(
  markup: Markup,
  evidence: readonly Evidence[],
  findings: readonly Finding[],
  { marks, fits }: RenderNotes,
): SnippetReport['renders'] {
  return flatMap([...evidence.entries()], ([i, one]) => {
    // Whether code is timed goes by the machine's time: what is looked at does not.
    if (CONDITIONS[one.render.variant].timed) return [];
    const place = getPlace(one);
    const key = getPlaceKey(place);
    // What only the markup shows holds wherever the markup stands.
    const here = findings.filter(
      ({ seen }) => seen.length === 0 || seen.some((place) => getPlaceKey(place) === key),
    );
    const worst = here
      .filter(counts)
      .reduce<Finding['level'] | null>((sum, finding) => getWorst(sum, finding.level), null);
    const box = isMeasured(one, 'slot') ? one.slot.box : null;
    const report = {
      ...place,
      slotWidth: box && box.width,
      slotHeight: box && Math.round(box.height * 100) / 100,
      height: one.render.viewport.height,
      worst,
      waived: here.some((finding) => !counts(finding)),
      fits: fits[i]!.fits,
      shot: one.shot,
      harm: one.harm ?? null,
      marks: marks[i] ?? [],
      ...reportSights(markup, one),
    };
    return [report];
  });
}

/** What was run, and what there is to run. */
export interface Ran {
  checks: readonly Check[];
  known: readonly Check[];
}

/** The same place when the page had come to rest. */
function toRest(place: Place): Place {
  return place.variant === 'minute'
    ? { ...place, variant: 'as-is', after: null, scrolled: null }
    : place;
}

/** How each render fits; not known where not all was seen, or not every check was run that tells. */
export function listFits(
  evidence: readonly Evidence[],
  findings: readonly Pick<Finding, 'id' | 'seen'>[],
  { checks, known }: Ran,
): Fit[] {
  if (evidence.length === 0) return [];
  const fitting = known.filter(({ tooWide }) => tooWide);
  const whole = fitting.every(({ id }) => checks.some((check) => check.id === id));
  const wide = flatMap(findings, ({ id, seen }) => {
    const check = fitting.find((one) => one.id === id);
    return check ? seen.filter((one) => check.tooWide!(one)) : [];
  });
  // What is too wide after a while does not fit.
  const burst = new Set(flatMap(wide, (one) => [getPlaceKey(one), getPlaceKey(toRest(one))]));
  const later = new Set(mapPresent(wide, (one) => (one.after === null ? null : nameRoom(one))));
  return evidence.map((one) => {
    const bursts = burst.has(getPlaceKey(getPlace(one)));
    // A minute is lived on in some of the windows only: where these are too wide then, others may be.
    const isLooked = !later.has(nameRoom(getPlace(one)));
    const known = whole && isSeen(one) && isLooked && one.render.variant === 'as-is';
    return {
      width: isMeasured(one, 'slot') ? one.slot.box.width : one.render.viewport.width,
      fits: bursts ? false : known || null,
    };
  });
}

/**
 * The narrowest slot width, of all that were rendered as they are or tried besides, from which nothing is too
 * wide up to the widest; null where something is even there, or where it was not all looked into.
 */
export function getFitsFrom(evidence: readonly Evidence[], fits: readonly Fit[]): number | null {
  const rendered = fits.filter((_, i) => evidence[i]!.render.variant === 'as-is');
  const rooms = [
    ...rendered.map(({ width, fits }) => ({ from: width, to: width, fits: fits === true })),
    ...flatMap(evidence, ({ widths }) => widths.rooms),
  ];
  const most = Math.max(...rooms.filter(({ fits }) => !fits).map(({ to }) => to), -Infinity);
  const fit = rooms.filter((one) => one.fits && one.to > most);
  // One that is just wide enough fits only because a px is let be.
  const whole = (from: number) => (from > most + TOLERANCE ? from : most + 1 + TOLERANCE);
  return fit.length === 0 ? null : Math.min(...fit.map(({ from }) => whole(from)));
}

/** What was tried between the windows that were rendered. */
export function reportSearched(evidence: readonly Evidence[]): SnippetReport['searched'] {
  const all = evidence.map(({ widths }) => widths);
  const ranges = flatMap(all, ({ searched }) => searched.map((one) => ({ ...one, near: false })));
  return {
    windows: joinRanges(ranges).map(({ from, to }) => ({ from, to })),
    tried: all.reduce((sum, { tried }) => sum + tried, 0),
    why: all.find(({ unsearched }) => unsearched !== null)?.unsearched ?? null,
  };
}

/** Whether all that could be too wide was seen. */
function isSeen({ gaps }: Evidence): boolean {
  return !gaps.some(({ kind }) => FITTING_KINDS.includes(kind));
}
