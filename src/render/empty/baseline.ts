import type { Baseline, ScriptFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { nameStored } from '../../facts/stored/collect.js';
import { isSame } from '../collect/own.js';
import type { Sighting } from '../stage.js';

/** Joins sightings of the page without the snippet, two or more: what differs between them is unsteady. */
export function makeBaseline(all: readonly Sighting[]): Baseline {
  const [first, ...others] = all as [Sighting, ...Sighting[]];
  const parts: Baseline['parts'] = {};
  for (const [offset, { node: _node, ...part }] of first.parted?.parts ?? []) {
    const again = others.map(({ parted }) => parted?.parts.get(offset));
    const steady = again.every((one) => one !== undefined && isSame(part, one));
    const stands = again.every((one) => one && Math.abs(one.box.y - part.box.y) <= 1);
    const rank = again.every((one) => one?.rank === part.rank) ? part.rank : null;
    parts[offset] = { ...part, steady, stands, rank };
  }
  const [one] = first.evidence;
  const widths = all.map(getWidth);
  return {
    viewport: one!.render.viewport.name,
    scrollWidth: Math.max(...widths),
    steady: widths.every((width) => Math.abs(width - widths[0]!) <= 1),
    parts,
    scrolled: Math.max(...all.map(({ evidence }) => evidence[0]!.page.scrolled)),
    settings: joinSettings(all.map(({ settings }) => settings)),
    jumps: Math.max(...all.map(({ evidence }) => evidence[0]!.shifts.score)),
    wide: one!.widths.wide,
    sheets: [...new Set(flatMap(all, ({ sheets }) => sheets))],
    stored: [...new Set(flatMap(all, ({ evidence }) => evidence[0]!.stored.map(nameStored)))],
    errors: listScripted(all, ({ hostErrors }) => hostErrors.map(({ text }) => text)),
    replaced: listScripted(all, ({ replaced }) => replaced.map(({ name }) => name)),
    flashing: flatMap(all, ({ evidence }) => evidence[0]!.flashing.map(({ box }) => box)),
    requests: [...new Set(flatMap(all, ({ requests }) => requests))],
    made: [...new Set(flatMap(all, ({ parted }) => parted?.made ?? []))],
  };
}

function listScripted(all: readonly Sighting[], list: (scripts: ScriptFact) => string[]): string[] {
  return [...new Set(flatMap(all, ({ evidence }) => list(evidence[0]!.scripts)))];
}

function getWidth({ evidence }: Sighting): number {
  const { atLoad, afterScroll } = evidence[0]!.page;
  return Math.max(atLoad.scrollWidth, afterScroll?.scrollWidth ?? 0);
}

function joinSettings(all: readonly Sighting['settings'][]): Baseline['settings'] {
  const [first, ...others] = all as [Sighting['settings'], ...Sighting['settings'][]];
  const names = Object.keys(Object.assign({}, ...all) as Sighting['settings']);
  return Object.fromEntries(
    names.map((name) => {
      const isSet = others.every((one) => one[name] === first[name]);
      return [name, isSet ? (first[name] ?? null) : null];
    }),
  );
}
