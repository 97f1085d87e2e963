import type { Interval } from '../evidence.js';
import { isOneKind, type Viewport } from '../render.js';

/**
 * Shares windows out among viewports: each window is looked at as the viewport nearest to it is. Of those of
 * one kind the last stands for all.
 */
export function shareWindows(
  viewports: readonly Viewport[],
  { from, to }: Interval,
): Map<Viewport, Interval[]> {
  const sorted = [...viewports].sort((a, b) => a.width - b.width);
  const shares = new Map<Viewport, Interval[]>();
  let begin = from;
  for (const [i, viewport] of sorted.entries()) {
    const next = sorted[i + 1];
    if (next && isOneKind(next, viewport)) continue;
    const end = next ? Math.min(to, Math.floor((viewport.width + next.width) / 2)) : to;
    const stands = viewports.findLast((one) => isOneKind(one, viewport))!;
    if (end >= begin) shares.set(stands, [...(shares.get(stands) ?? []), { from: begin, to: end }]);
    begin = Math.max(begin, end + 1);
  }
  return shares;
}
