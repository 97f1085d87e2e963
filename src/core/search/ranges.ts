import type { Range } from '../check.js';
import type { ElementFact, Evidence, WidthSpan } from '../evidence.js';
import { flatMap } from '../lists.js';
import { nameRoom, type Place } from '../render.js';
import { isOneElement } from './spans.js';

/** In which windows an element is too wide, wherever that was searched; null for the page as a whole. */
export function listRanges(
  renders: readonly (Pick<Evidence, 'widths'> & { at: Place })[],
  room: Pick<Place, 'slot' | 'insert'>,
  what: WidthSpan['for'],
  element: Pick<ElementFact, 'from' | 'selector'> | null,
): Range[] {
  const known = { element: element && { from: element.from, selector: element.selector } };
  const spans = flatMap(renders, ({ at, widths }) =>
    nameRoom(at) === nameRoom(room) ? widths.spans : [],
  );
  const own = spans.filter((span) => span.for === what && isOneElement(span, known));
  return joinRanges(own.map((span) => ({ ...span, slot: room.slot })));
}

/** Joins what overlaps or follows on each other in a slot. */
export function joinRanges(ranges: readonly Range[]): Range[] {
  const slots = [...new Set(ranges.map(({ slot }) => slot))];
  return flatMap(slots, (slot) => {
    const joined = joinAll(ranges.filter((one) => one.slot === slot));
    return slot === undefined ? joined : joined.map((one) => ({ ...one, slot }));
  });
}

function joinAll(ranges: readonly Range[]): Range[] {
  const joined: Range[] = [];
  for (const { from, to, near, most = 0 } of [...ranges].sort((a, b) => a.from - b.from)) {
    const last = joined.at(-1);
    if (last && from <= last.to + 1) {
      last.near = (to > last.to ? near : last.near) || (last.near && near);
      last.to = Math.max(last.to, to);
      last.most = Math.max(last.most ?? 0, most);
    } else joined.push({ from, to, near, most });
  }
  return joined;
}
