import type { Evidence } from '../evidence.js';
import { getPlace, nameRoom, type Render } from '../render.js';

/** What was seen in each slot, for each way that code is put in. */
export function gatherRooms(evidence: readonly Evidence[]): Evidence[][] {
  const rooms = new Map<string, Evidence[]>();
  for (const one of evidence) {
    const room = nameRoom(getPlace(one));
    rooms.set(room, [...(rooms.get(room) ?? []), one]);
  }
  return [...rooms.values()];
}

/** A render in a window of another width, px, that is called by it. @param names those that are taken */
export function toWidth(render: Render, width: number, names: readonly string[]): Render {
  const name = names.includes(String(width)) ? `${width}px` : String(width);
  return { ...render, viewport: { ...render.viewport, name, width }, search: [] };
}
