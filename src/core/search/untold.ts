import type { Baseline, Evidence, Gap, WidthSpan } from '../evidence.js';
import { listTooWide } from '../measure/too-wide.js';
import { getEmpty, getPlace, getRenderKey, nameRoom } from '../render.js';
import { covers, isNoNews } from './spans.js';

/**
 * Adds what the search found and no render shows: that is a gap, and nothing that was seen to be sound. Either
 * there was too much for a window of its own, or the page is not there as its copy was.
 */
export function markUntold(
  evidence: readonly Evidence[],
  baselines: ReadonlyMap<string, Baseline>,
): Evidence[] {
  const asIs = evidence.filter(({ render }) => render.variant === 'as-is');
  const shown = new Map(asIs.map((one) => [one, listShown(one, baselines)]));
  return evidence.map((one) => {
    if (one.widths.spans.length === 0) return one;
    const beside = asIs.filter((other) => isOneRoom(one, other));
    const untold = one.widths.spans.filter(
      (span) => !beside.some((other) => tells(other, shown.get(other)!, span)),
    );
    return untold.length === 0 ? one : { ...one, gaps: [...one.gaps, ...untold.map(toGap)] };
  });
}

type Shown = Pick<WidthSpan, 'for' | 'element'>;

function listShown(one: Evidence, baselines: ReadonlyMap<string, Baseline>): Shown[] {
  const baseline = baselines.get(getRenderKey(getEmpty(one.render))) ?? null;
  return listTooWide({ ...one, baseline });
}

/**
 * Whether what a render shows tells of it: the same, whose finding has all its windows, or, in one of these windows,
 * what reaches farther.
 */
function tells({ render }: Evidence, shown: readonly Shown[], span: WidthSpan): boolean {
  const isThere = covers(span, render.viewport.width);
  return shown.some((one) => isNoNews(one, span) || (isThere && one.for === span.for));
}

function isOneRoom(one: Evidence, other: Evidence): boolean {
  return nameRoom(getPlace(one)) === nameRoom(getPlace(other));
}

function toGap({ from, to }: WidthSpan): Gap {
  const windows = from === to ? `${from} px` : `${from} to ${to} px`;
  const why = `more seems to be too wide in windows of ${windows} than could be shown`;
  return { kind: 'widths', why, seen: null, kept: 1 };
}
