import type { Baseline, Evidence, Gap, WidthSpan } from '../evidence.js';
import { listTooWide } from '../measure/too-wide.js';
import { getEmpty, getPlace, getRenderKey, isOneKind, nameRoom } from '../render.js';
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
    const like = asIs.filter((other) => isAlike(one, other));
    const untold = one.widths.spans.filter(
      (span) =>
        !like.some(
          (other) => covers(span, other.render.viewport.width) && tells(shown.get(other)!, span),
        ),
    );
    return untold.length === 0 ? one : { ...one, gaps: [...one.gaps, ...untold.map(toGap)] };
  });
}

type Shown = Pick<WidthSpan, 'for' | 'element'>;

function listShown(one: Evidence, baselines: ReadonlyMap<string, Baseline>): Shown[] {
  const baseline = baselines.get(getRenderKey(getEmpty(one.render))) ?? null;
  return listTooWide({ ...one, baseline });
}

/** Whether a render shows it: the same, or what reaches farther, so that it is what is told there. */
function tells(shown: readonly Shown[], span: WidthSpan): boolean {
  return shown.some((one) => one.for === span.for || isNoNews(one, span));
}

function isAlike(one: Evidence, other: Evidence): boolean {
  const [a, b] = [one.render, other.render];
  return nameRoom(getPlace(one)) === nameRoom(getPlace(other)) && isOneKind(a.viewport, b.viewport);
}

function toGap({ from, to }: WidthSpan): Gap {
  const windows = from === to ? `${from} px` : `${from} to ${to} px`;
  const why = `more seems to be too wide in windows of ${windows} than could be shown`;
  return { kind: 'widths', why, seen: null, kept: 1 };
}
