import { PNG } from 'pngjs';
import type { Box, TextFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { getContrast } from '../../core/measure/contrast.js';
import type { Viewport } from '../../core/render.js';
import { patiently } from '../bounds/patience.js';
import type { BrowserPage } from '../page/browser-page.js';
import { shootSteadily } from './shot.js';
import { defineStep } from './step.js';

/** So many texts are looked behind, and so large a piece of the page is taken at most, px. */
const MOST_TEXTS = 40;
const MOST_PIXELS = 4_000_000;
/** So many pixels of a text are looked at. */
const SAMPLES = 2000;
/** What is behind so large a part of a text decides how well it is seen. */
const PART = 0.25;
const LIMIT = 3000;

export const groundsStep = defineStep({
  name: 'grounds',
  phase: 'pictured',
  kind: 'texts',
  timesItself: true,
  isDue: ({ setting }) => !setting.budget.isOver,
  take: ({ page, facts, setting, reading }) =>
    readGrounds(page, facts.texts, setting.around.window, reading.raw.width.clientWidth),
  tells: ({ texts }, grounds) => ({
    texts: texts.map((text) => ({ ...text, ground: grounds.get(text.id) ?? text.ground })),
  }),
});

/** A text with letters of one colour on something that is none. */
type Painted = TextFact & { area: Box; colour: string };

/**
 * Tells for texts on pictures what is behind them, from a picture of the page without its letters: the
 * colour that is worst for them, but for a quarter that may be worse still.
 * @param clientWidth the window's width without its scroll bar, px
 */
async function readGrounds(
  page: BrowserPage,
  texts: readonly TextFact[],
  viewport: Viewport,
  clientWidth: number,
): Promise<ReadonlyMap<number, string>> {
  const open = texts.filter(isOpen).slice(0, MOST_TEXTS);
  const region = getRegion(open.map(({ area }) => area));
  if (!region || region.width * region.height > MOST_PIXELS) return new Map();
  await patiently(page.read('hideLetters', true), LIMIT).catch(() => null);
  const bytes = await shootSteadily(page, viewport, clientWidth, region);
  await patiently(page.read('hideLetters', false), LIMIT).catch(() => null);
  if (!bytes) return new Map();
  const picture = PNG.sync.read(bytes);
  return new Map(
    flatMap(open, (text) => {
      const ground = findGround(picture, region, text);
      return ground === null ? [] : [[text.id, ground] as const];
    }),
  );
}

function isOpen(text: TextFact): text is Painted {
  return text.shown && text.given && text.area !== null && text.colour !== null;
}

function getRegion(areas: readonly Box[]): Box | null {
  if (areas.length === 0) return null;
  const left = Math.max(0, Math.floor(Math.min(...areas.map(({ x }) => x))));
  const top = Math.max(0, Math.floor(Math.min(...areas.map(({ y }) => y))));
  const right = Math.ceil(Math.max(...areas.map(({ x, width }) => x + width)));
  const bottom = Math.ceil(Math.max(...areas.map(({ y, height }) => y + height)));
  if (right <= left || bottom <= top) return null;
  return { x: left, y: top, width: right - left, height: bottom - top };
}

function findGround(picture: PNG, region: Box, { area, colour }: Painted): string | null {
  const grounds = listPixels(picture, region, area)
    .map((ground) => ({ ground, contrast: getContrast(colour, ground) }))
    .sort((a, b) => a.contrast - b.contrast);
  return grounds[Math.floor(grounds.length * PART)]?.ground ?? null;
}

/** The colours of an area, evenly picked. */
function listPixels({ data, width, height }: PNG, region: Box, area: Box): string[] {
  const step = Math.max(1, Math.ceil(Math.sqrt((area.width * area.height) / SAMPLES)));
  const found: string[] = [];
  const [left, top] = [Math.floor(area.x - region.x), Math.floor(area.y - region.y)];
  for (let y = Math.max(0, top); y < Math.min(height, top + area.height); y += step) {
    for (let x = Math.max(0, left); x < Math.min(width, left + area.width); x += step) {
      const at = (y * width + x) * 4;
      found.push(`#${data.toString('hex', at, at + 3)}`);
    }
  }
  return found;
}
