import * as z from 'zod';
import { boxSchema } from '../../facts/common.js';
import { shotSchema, type Box, type Shot } from '../evidence.js';
import { flatMap, groupBy, mapPresent } from '../lists.js';
import { nameRoom } from '../render.js';
import { isAtFirst } from '../render-report.js';
import type { SnippetReport } from '../run.js';
import { joinWords } from '../words/list.js';
import { findDiffering, type How, type Raster } from './raster.js';

const picture = z.object({
  shot: shotSchema,
  areas: z
    .array(boxSchema)
    .describe(
      'Where it differs from the first of them; of the first, from any other. px of the page',
    ),
});

/** One slot in one window, with each candidate in it. */
export const pictureRow = z.object({
  slot: z.string(),
  viewport: z.string(),
  width: z.number().describe('Of the window, CSS px.'),
  alike: z
    .boolean()
    .nullable()
    .describe('Whether all look the same; null where not all have a picture.'),
  of: z
    .array(picture.nullable())
    .describe('Candidate by candidate; null where there is no picture.'),
});
export type PictureRow = z.infer<typeof pictureRow>;
type Picture = z.infer<typeof picture>;

/** The pixels of a shot; null where they are not there. */
export type GetRaster = (shot: Shot) => Promise<Raster | null>;

/** Holds what candidates look like against each other, slot by slot and window by window. */
export async function comparePictures(
  snippets: readonly SnippetReport[],
  getRaster: GetRaster,
  how: How = 'closely',
): Promise<PictureRow[]> {
  const own = snippets.map(({ renders }) =>
    groupBy(renders.filter(isAtFirst), (one) => toWindowKey(nameRoom(one), one.viewport)),
  );
  const keys = [...new Set(flatMap(own, (renders) => [...renders.keys()]))];
  const rows: PictureRow[] = [];
  for (const key of keys) {
    const renders = own.map((one) => one.get(key)?.[0] ?? null);
    const { viewport, width, ...room } = renders.find((one) => one !== null)!;
    const of = await compareShots(
      renders.map((one) => one?.shot ?? null),
      getRaster,
      { how, from: 'page' },
    );
    rows.push({ slot: nameRoom(room), viewport, width, alike: areAlike(of), of });
  }
  return rows;
}

/** Whether all look the same; null where not all have a picture. */
export function areAlike(of: PictureRow['of']): boolean | null {
  return of.some((one) => one === null) ? null : of.every((one) => one!.areas.length === 0);
}

/**
 * In which windows snippets look otherwise than before, roughly; by their names. What has the same shots is not
 * looked at, nor what has none.
 */
export async function findOtherwise(
  before: readonly SnippetReport[],
  after: readonly SnippetReport[],
  getRaster: GetRaster,
): Promise<Map<string, PictureRow[]>> {
  const known = new Map(before.map((one) => [one.name, one]));
  const found = new Map<string, PictureRow[]>();
  for (const now of after) {
    const old = known.get(now.name);
    if (!old || listHashes(old) === listHashes(now)) continue;
    const rows = await comparePictures([old, now], getRaster, 'roughly');
    const otherwise = rows.filter(({ alike }) => alike === false);
    if (otherwise.length > 0) found.set(now.name, otherwise);
  }
  return found;
}

function listHashes({ renders }: SnippetReport): string {
  return renders
    .filter(isAtFirst)
    .map(({ shot }) => shot?.hash)
    .join();
}

/** Known by its room and its name. */
export function toWindowKey(room: string, viewport: string): string {
  return JSON.stringify([room, viewport]);
}

/** `column at 320 and 390 px` */
export function nameWindows(rows: readonly PictureRow[]): string {
  const bySlot = groupBy(rows, ({ slot }) => slot);
  const places = [...bySlot].map(
    ([slot, own]) => `${slot} at ${joinWords(own.map(({ width }) => String(width)))} px`,
  );
  return joinWords(places);
}

/**
 * Holds each shot against the first of them.
 * @param how closely they are looked at, and whether columns count from the page's edge or from that of the shot
 */
export async function compareShots(
  shots: readonly (Shot | null)[],
  getRaster: GetRaster,
  { how, from }: { how: How; from: 'page' | 'shot' },
): Promise<(Picture | null)[]> {
  const found: { shot: Shot; raster: Raster; areas: Box[] }[] = [];
  for (const shot of new Set(mapPresent(shots, (one) => one))) {
    const [first] = found;
    const isSame = first?.shot.hash === shot.hash;
    const raster = isSame ? first.raster : await getRaster(shot);
    if (!raster) continue;
    const one = { shot, raster, areas: [] as Box[] };
    if (first && !isSame) {
      const areas = findInPage(first, one, how, from === 'page');
      first.areas.push(...areas.first);
      one.areas.push(...areas.other);
    }
    found.push(one);
  }
  return shots.map((shot) => {
    const one = found.find((candidate) => candidate.shot === shot);
    return one ? { shot: one.shot, areas: one.areas } : null;
  });
}

interface Shown {
  shot: Shot;
  raster: Raster;
}

/** Where they differ, px of the page. Columns stand where they are in the page, if so wanted; one may begin further out. */
function findInPage(
  first: Shown,
  other: Shown,
  how: How,
  inPage: boolean,
): { first: Box[]; other: Box[] } {
  const left = Math.max(first.shot.region.x, other.shot.region.x);
  const cut = (one: Shown) => (inPage ? cutLeft(one, left) : { raster: one.raster, cut: 0 });
  const [a, b] = [cut(first), cut(other)];
  const { a: inFirst, b: inOther } = findDiffering(a.raster, b.raster, how);
  return { first: toPage(inFirst, first, a.cut), other: toPage(inOther, other, b.cut) };
}

function getScale({ shot, raster }: Shown): number {
  return shot.region.width / raster.width;
}

function cutLeft(shown: Shown, left: number): { raster: Raster; cut: number } {
  const { shot, raster } = shown;
  const cut = Math.round((left - shot.region.x) / getScale(shown));
  if (cut <= 0 || cut >= raster.width) return { raster, cut: 0 };
  const width = raster.width - cut;
  const data = new Uint8Array(width * raster.height * 4);
  for (let row = 0; row < raster.height; row++) {
    const from = (row * raster.width + cut) * 4;
    data.set(raster.data.subarray(from, from + width * 4), row * width * 4);
  }
  return { raster: { width, height: raster.height, data }, cut };
}

function toPage(boxes: readonly Box[], shown: Shown, cut: number): Box[] {
  const { x, y } = shown.shot.region;
  const scale = getScale(shown);
  const round = (value: number) => Math.round(value * 10) / 10;
  return boxes.map((box) => ({
    x: round(x + (box.x + cut) * scale),
    y: round(y + box.y * scale),
    width: round(box.width * scale),
    height: round(box.height * scale),
  }));
}
