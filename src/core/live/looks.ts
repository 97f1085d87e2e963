import { areAlike, compareShots, type GetRaster, type PictureRow } from '../compare/pictures.js';
import type { Shot } from '../evidence.js';
import { mapPresent } from '../lists.js';

/** Pictures of a snippet in one window: where it was put, or of each copy of it that stands on a page. */
export interface SeenPieces {
  /** The slot, where it was put there; else ''. */
  slot: string;
  viewport: string;
  /** Of the window, CSS px. */
  width: number;
  shots: readonly Shot[];
}

/** So much wider or narrower is the same room, px: where it begins between two pixels it takes one more. */
const SAME_ROOM = 1;

/**
 * Holds what a snippet looks like on a page against what it looks like in the slot of the house, window by window.
 * There is one slot or more: that in which it is most nearly as wide counts.
 */
export async function compareLooks(
  inSlots: readonly SeenPieces[],
  onPage: readonly SeenPieces[],
  getRaster: GetRaster,
): Promise<PictureRow[]> {
  const rows: PictureRow[] = [];
  for (const { viewport, width, shots } of onPage) {
    const [copy] = shots;
    const own = copy && findNearest(inSlots, viewport, copy.region.width);
    if (!own) continue;
    const all = [own.shot, ...shots];
    const isSameRoom = shots.every(
      ({ region }) => Math.abs(region.width - own.shot.region.width) <= SAME_ROOM,
    );
    const of = isSameRoom
      ? await compareShots(all, getRaster, { how: 'roughly', from: 'shot' })
      : all.map((shot) => ({ shot, areas: [] }));
    const alike = isSameRoom ? areAlike(of) : null;
    rows.push({ slot: own.slot, viewport, width, alike, of });
  }
  return rows;
}

function findNearest(inSlots: readonly SeenPieces[], viewport: string, width: number) {
  const own = mapPresent(inSlots, (one) => {
    const [shot] = one.shots;
    return shot && one.viewport === viewport ? { slot: one.slot, shot } : null;
  });
  const getDistance = ({ shot }: { shot: Shot }) => Math.abs(shot.region.width - width);
  return own.sort((a, b) => getDistance(a) - getDistance(b))[0] ?? null;
}
