import { createHash } from 'node:crypto';
import type { Box, ElementFact, Render, Shot } from '../core/evidence.js';
import type { RawPage } from './collect/elements.js';
import { within } from './limit.js';
import type { Tab } from './tab.js';

/** A picture of a render, PNG, one pixel for each CSS px. */
export interface Picture {
  shot: Shot;
  bytes: Buffer;
}

/** What is shown around the slot, px; and how much at most. */
const MARGIN = 24;
const LEAST_HEIGHT = 160;
const MOST_HEIGHT = 1600;
const MOST_WIDTH = 3000;
const LIMIT = 8000;

/** Takes the slot with what stands in it, and all that sticks out of the window. Null where the page does not let itself be taken. */
export async function takePicture(
  tab: Tab,
  render: Render,
  page: RawPage | null,
  own: readonly ElementFact[],
): Promise<Picture | null> {
  const { viewport } = render;
  const region = getRegion(render, page, own);
  // To show more than the window takes its scroll bar away: its room must stay, or all moves.
  const bar =
    page !== null && viewport.scrollBars === 'classic' && page.width.clientWidth < viewport.width;
  if (bar) await within(tab.read(setGutter, true), LIMIT).catch(() => null);
  const taking = tab.session.send('Page.captureScreenshot', {
    format: 'png',
    optimizeForSpeed: false,
    captureBeyondViewport: true,
    clip: { ...region, scale: 1 / viewport.density },
  });
  const taken = await within(taking, LIMIT).catch(() => null);
  if (bar) await within(tab.read(setGutter, false), LIMIT).catch(() => null);
  if (!taken) return null;
  const bytes = Buffer.from(taken.data, 'base64');
  const hash = createHash('sha256').update(bytes).digest('hex');
  return { shot: { hash, region }, bytes };
}

/** Keeps the room of the scroll bar, by a sheet that no page sees in its tree. Runs in the isolated world. */
function setGutter(kept: boolean): void {
  const sheets = document.adoptedStyleSheets;
  const rule = 'html { scrollbar-gutter: stable !important; }';
  if (!kept) {
    document.adoptedStyleSheets = sheets.filter((one) => one.cssRules[0]?.cssText !== rule);
    return;
  }
  const sheet = new CSSStyleSheet();
  sheet.replaceSync(rule);
  document.adoptedStyleSheets = [...sheets, sheet];
}

function getRegion({ viewport }: Render, page: RawPage | null, own: readonly ElementFact[]): Box {
  const slot = page?.slot?.box;
  if (!page || !slot) return { x: 0, y: 0, width: viewport.width, height: viewport.height };
  const boxes = own.filter(({ shown, clipped }) => shown && !clipped).map(({ box }) => box);
  const bottom = Math.max(...[slot, ...boxes].map(({ y, height }) => y + height));
  const top = Math.max(0, Math.floor(Math.min(...[slot, ...boxes].map(({ y }) => y)) - MARGIN));
  return {
    x: 0,
    y: top,
    width: Math.min(Math.max(viewport.width, page.width.scrollWidth), MOST_WIDTH),
    height: Math.min(Math.max(Math.ceil(bottom + MARGIN) - top, LEAST_HEIGHT), MOST_HEIGHT),
  };
}
