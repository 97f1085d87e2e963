import { nameWindows, toWindowKey, type PictureRow } from '../compare/pictures.js';
import { flatMap, mapPresent } from '../lists.js';
import { nameRoom } from '../render.js';
import type { Finding } from '../run.js';

/**
 * Where a snippet looks otherwise since it was mended, though nothing that was to be cured was to be seen there: a cure
 * leaves all else as it was. Of what only the markup shows nobody knows where it shows.
 * @param rows it before and after
 * @returns `column at 1280 px`, and so on
 */
export function listAltered(cured: readonly Finding[], rows: readonly PictureRow[]): string[] {
  if (cured.some(({ seen }) => seen.length === 0)) return [];
  const wrong = new Set(
    flatMap(cured, ({ seen }) => seen.map((one) => toWindowKey(nameRoom(one), one.viewport))),
  );
  const sound = rows.filter(({ slot, viewport }) => !wrong.has(toWindowKey(slot, viewport)));
  return listDiffering(sound);
}

/** Where two look different. */
export function listDiffering(rows: readonly PictureRow[]): string[] {
  return mapPresent(rows, (row) => (row.alike === false ? nameWindows([row]) : null));
}
