import type { RunDocument, SnippetReport } from '../../core/run.js';
import { formatSheetPage, loadShots, type GetShot } from './report.js';

/** Draws a page as a PNG; null where it is higher than a picture can be. */
export type Draw = (html: string, width: number) => Promise<Uint8Array | null>;

const WIDTH = 1600;
/** So many snippets on one sheet, so that a long run is not held in one page. */
const ON_A_SHEET = 12;

/** Sheets of all snippets; as many pictures as it takes. */
export async function* drawAll(
  { snippets }: RunDocument,
  getShot: GetShot,
  draw: Draw,
): AsyncGenerator<Uint8Array, void, undefined> {
  for (let at = 0; at < snippets.length; at += ON_A_SHEET)
    yield* drawSheets(snippets.slice(at, at + ON_A_SHEET), getShot, draw);
}

/** One sheet, or more where it were too high. */
export async function* drawSheets(
  snippets: readonly SnippetReport[],
  getShot: GetShot,
  draw: Draw,
): AsyncGenerator<Uint8Array, void, undefined> {
  const page = formatSheetPage(snippets, await loadShots(snippets, getShot));
  const sheet = await draw(page, WIDTH);
  if (sheet) return yield sheet;
  // One snippet's rows are never so high: each picture has a limit of its own.
  if (snippets.length < 2) return;
  const half = Math.ceil(snippets.length / 2);
  yield* drawSheets(snippets.slice(0, half), getShot, draw);
  yield* drawSheets(snippets.slice(half), getShot, draw);
}
