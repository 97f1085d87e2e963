import type { Baseline } from '../../core/evidence.js';
import { isSame } from '../collect/own.js';
import type { Rendered } from '../stage.js';

/** Joins two renders of the page without the snippet: what differs between them is unsteady. */
export function makeBaseline(first: Rendered, second: Rendered): Baseline {
  const parts: Baseline['parts'] = {};
  for (const [offset, { node: _node, ...part }] of first.parted?.parts ?? []) {
    const again = second.parted?.parts.get(offset);
    parts[offset] = { ...part, steady: again !== undefined && isSame(part, again) };
  }
  return {
    viewport: first.evidence[0]!.render.viewport.name,
    scrollWidth: Math.max(getWidth(first), getWidth(second)),
    steady: Math.abs(getWidth(first) - getWidth(second)) <= 1,
    parts,
    scrolled: Math.max(...[first, second].map(({ evidence }) => evidence[0]!.page.scrolled)),
    settings: joinSettings(first.settings, second.settings),
    jumps: Math.max(...[first, second].map(({ evidence }) => evidence[0]!.shifts.score)),
    wide: first.evidence[0]!.widths.wide,
    requests: [...new Set([...first.requests, ...second.requests])],
    made: [...new Set([...(first.parted?.made ?? []), ...(second.parted?.made ?? [])])],
  };
}

function getWidth({ evidence }: Rendered): number {
  const { atLoad, afterScroll } = evidence[0]!.page;
  return Math.max(atLoad.scrollWidth, afterScroll?.scrollWidth ?? 0);
}

function joinSettings(
  first: Rendered['settings'],
  second: Rendered['settings'],
): Baseline['settings'] {
  const names = Object.keys({ ...first, ...second });
  return Object.fromEntries(
    names.map((name) => [name, first[name] === second[name] ? (first[name] ?? null) : null]),
  );
}
