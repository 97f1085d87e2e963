import type { Box, ElementFact, PaintedPart, PaintFact } from '../../core/evidence.js';
import { flatMap, mapPresent } from '../../core/lists.js';
import { isRead } from '../../core/measure/texts.js';
import { FRAMES, MEDIA } from '../../core/standards/elements.js';
import type { Viewport } from '../../core/render.js';
import { Breakdown } from '../bounds/breakdown.js';
import type { Parted } from '../collect/own.js';
import type { View, ViewWish } from '../in-page/painted.js';
import type { BrowserPage } from '../page/browser-page.js';
import { isPlain, readCells, readPicture, type Picture } from '../picture.js';
import { couldDo, isAsIs, isOneOfKind } from './once.js';
import { shootSteadily } from './shot.js';
import { defineStep, type ReadScene } from './step.js';

/** What is painted where it can be seen: at the top of the page, and where the slot begins and ends; within the first minute too. */
export const paintStep = defineStep({
  name: 'paint',
  phase: 'pictured',
  kind: 'paint',
  // A picture takes longer where a film plays, and on a busy machine.
  patience: 3,
  isDue: (scene) => isLookedAt(scene) && couldDo(scene, PAINTING),
  take: takePaint,
  tells: (_facts, paint) => ({ paint }),
});

function isLookedAt(scene: ReadScene): boolean {
  const { variant, scrolled } = scene.job.render;
  if (variant === 'minute') return scrolled === null && !scene.setting.around.published;
  return isAsIs(scene) && isOneOfKind(scene);
}

/** What of a style could paint outside of its own box, or keep something in it from being painted. */
const PAINTING =
  /fixed|absolute|sticky|margin[\w-]*\s*:[^;{}"']*-\s*[\d.]|(inset|left|top|right|bottom)\s*:\s*-|transform|translate|rotate|scale|zoom|shadow|outline|filter|blend|clip|mask|text-indent|text-fill|opacity|::?(before|after)/i;

/** Pixels for each CSS px: letters are still told from none. */
const SCALE = 0.5;
/** So many parts of the page around are looked for. */
const MOST_PARTS = 300;
/** So far down a page can be pictured: what lies deeper the browser leaves blank, px. */
const DEEPEST = 12_000;
/** Where in the window a slot's ends are put, of its height. */
const BEGINS = 0.4;
const ENDS = 0.5;

/** A view with its picture. */
interface Pictured extends View {
  picture: Picture;
}

async function takePaint(scene: ReadScene): Promise<PaintFact> {
  const { page, setting, facts, parted } = scene;
  const wish: ViewWish = {
    slot: facts.slot.name,
    host: listSaying(parted),
    own: flatMap(facts.elements, ({ id, shown }) => (shown ? [id] : [])),
    texts: flatMap(facts.texts, (text) => (isRead(text) && !text.placeholder ? [text.id] : [])),
  };
  const seen = await lookAll(page, setting.around.window, wish);
  return {
    parts: isComparable(scene) ? listPainted(seen, parted) : [],
    blank: scene.own.media || facts.slot.text ? null : isBlank(seen, scene),
    unseen: listUnseen(seen),
  };
}

/** A page with code may look otherwise later by itself. */
function isComparable({ job, setting }: ReadScene): boolean {
  return job.render.variant !== 'minute' || !setting.around.hostChanges;
}

function listSaying({ parts }: Parted): number[] {
  const saying = flatMap([...parts.values()], ({ node, shown, says, leads }) =>
    shown && node !== undefined && says + leads !== '' ? [node] : [],
  );
  return saying.slice(0, MOST_PARTS);
}

async function lookAll(page: BrowserPage, viewport: Viewport, wish: ViewWish): Promise<Pictured[]> {
  const edges = await page.read('findSlotEdges', wish.slot);
  const { height } = viewport;
  const begins = edges ? [edges.top - BEGINS * height] : [];
  const ends =
    edges && edges.bottom - edges.top > BEGINS * height ? [edges.bottom - ENDS * height] : [];
  const seen: Pictured[] = [];
  const stops = [0, ...begins, ...ends].filter((stop) => stop < DEEPEST);
  for (const stop of stops) {
    await page.read('scrollTo', Math.max(0, Math.round(stop)));
    const view = await page.read('readView', wish);
    if (seen.some(({ top }) => Math.abs(top - view.top) < 1)) continue;
    seen.push({ ...view, picture: await takeWindow(page, viewport, view) });
  }
  await page.read('scrollBack');
  return seen;
}

async function takeWindow(page: BrowserPage, viewport: Viewport, view: View): Promise<Picture> {
  const { left: x, top: y, clientWidth } = view;
  const region: Box = { x, y, width: clientWidth, height: viewport.height };
  const bytes = await shootSteadily(page, viewport, clientWidth, region, SCALE);
  if (!bytes) throw new Breakdown('no picture could be taken of it');
  return readPicture(bytes, SCALE);
}

/** Each where it is first seen. */
function listPainted(seen: readonly Pictured[], { parts }: Parted): PaintedPart[] {
  const found = new Map<number, PaintedPart>();
  for (const [offset, { node, tag, words }] of parts)
    for (const { host, picture } of seen) {
      const piece = host.find(({ id }) => id === node);
      if (!piece || found.has(offset)) continue;
      const { width, height } = piece.box;
      const cells = readCells(picture, piece.box);
      found.set(offset, { offset, tag, words, width, height, cells });
    }
  return [...found.values()];
}

/** What documents, films and code paint comes when they are ready. */
const isForeign = ({ tag }: ElementFact) => FRAMES.has(tag) || MEDIA.has(tag) || tag === 'canvas';

/** Whether its boxes look like what is behind them; null where not all of them were seen at once. */
function isBlank(seen: readonly Pictured[], { facts }: ReadScene): boolean | null {
  const shown = facts.elements.filter((one) => one.shown);
  if (shown.length === 0 || shown.some(isForeign)) return null;
  const whole = seen.filter(({ beyond, ground }) => !beyond && ground !== null);
  const view = whole.find(({ own }) => own.length > 0) ?? whole[0];
  if (!view) return null;
  return view.own.every((box) => isPlain(view.picture, box, view.ground!) !== false);
}

/** Texts in whose place there is one colour, wherever they were seen. */
function listUnseen(seen: readonly Pictured[]): number[] {
  const plain = mapPresent(
    flatMap(seen, ({ texts, picture }) => texts.map((piece) => ({ ...piece, picture }))),
    ({ id, box, picture }) => ({ id, is: isPlain(picture, box) === true }),
  );
  const ids = new Set(plain.filter(({ is }) => is).map(({ id }) => id));
  for (const { id, is } of plain) if (!is) ids.delete(id);
  return [...ids].sort((a, b) => a - b);
}
