import type { Evidence, FrameFact } from '../evidence.js';
import { flatMap, groupBy } from '../lists.js';
import { getElementFrom, getValue, type Markup } from '../markup/markup.js';
import { getPlace, nameRoom } from '../render.js';
import { getElementKey } from '../search/spans.js';
import { TOLERANCE } from './culprits.js';
import { isFramedPlayer, isMostlyEmpty, listFramed } from './framed.js';

/** A frame at one place: what it has, and what its document needs. */
export interface FrameFitRow {
  slot: string;
  /** Of the window, px. */
  window: number;
  width: number;
  height: number;
  /** The height that fits, px; null where it has none of its own, or fits as it is. */
  needed: number | null;
}

/** How a frame fits what it shows, and how it would. */
export interface FrameFit {
  /** Its line in the snippet; null where a script made it. */
  line: number | null;
  name: string;
  /** By what its height goes: that of its document, its proportion, or whatever it is given. */
  by: 'content' | 'proportion' | 'nothing';
  rows: FrameFitRow[];
  /** What makes it fit everywhere, to paste; null where nothing has to be said, or it is for a person to choose. */
  css: string | null;
  /** It fits as it is, everywhere. */
  fits: boolean;
}

interface Sighted {
  frame: FrameFact;
  one: Evidence;
}

/** How each frame fits whose document was measured, and each player. */
export function listFrameFits(markup: Markup, evidence: readonly Evidence[]): FrameFit[] {
  const asIs = evidence.filter(({ render }) => render.variant === 'as-is');
  const sights = flatMap(asIs, (one) => {
    const known = new Set(listFramed(one).map(({ id }) => id));
    return one.frames
      .filter((frame) => known.has(frame.id) || (frame.shown && isFramedPlayer(frame)))
      .map((frame): Sighted => ({ frame, one }));
  });
  return [...groupBy(sights, ({ frame }) => getElementKey(frame)).values()].map((sighted) =>
    findFit(markup, sighted),
  );
}

function findFit(markup: Markup, sighted: readonly Sighted[]): FrameFit {
  const [{ frame }] = sighted as [Sighted];
  const element = 'offset' in frame.from ? getElementFrom(markup, frame.from.offset) : null;
  const rows = sighted.map(toRow);
  const by = getBy(sighted);
  const fits = by !== 'content' || rows.every(isFitting);
  const selector = getSelector(frame);
  const css =
    by === 'proportion'
      ? `${selector} { ${getRatio(frame)} }`
      : writeHeights(selector, rows, isInline(frame));
  return {
    line: element ? markup.place(element).line : null,
    name: (element && getValue(element, 'title')) ?? frame.attributes.title ?? frame.address,
    by,
    rows,
    css: by === 'nothing' || (by === 'content' && fits) ? null : css,
    fits,
  };
}

function getBy(sighted: readonly Sighted[]): FrameFit['by'] {
  if (sighted.some(({ frame }) => isFramedPlayer(frame))) return 'proportion';
  const naturals = sighted.map(({ frame }) => frame.inner?.natural);
  const fills = naturals.includes(null) && !naturals.some((one) => typeof one === 'number');
  return fills ? 'nothing' : 'content';
}

function toRow({ frame, one }: Sighted): FrameFitRow {
  const { width, height } = frame.box;
  const { inner } = frame;
  const edges = inner ? Math.max(0, height - inner.height) : 0;
  // A scroll bar at its foot is no edge.
  const border = edges <= 2 * MOST_BORDER ? edges : 0;
  const natural = isFramedPlayer(frame) ? null : (inner?.natural ?? null);
  const needed = natural === null ? null : Math.ceil(natural + border);
  const place = getPlace(one);
  return { slot: nameRoom(place), window: place.width, width, height, needed };
}

const MOST_BORDER = 6;

function isFitting({ height, needed }: FrameFitRow): boolean {
  if (needed === null) return true;
  return height >= needed - TOLERANCE && !isMostlyEmpty(height, needed);
}

/** By what it is found on any page. */
function getSelector({ tag, attributes }: FrameFact): string {
  if (attributes.id) return `#${attributes.id.replace(/[^\w-]/g, (one) => `\\${one}`)}`;
  const [name, value] =
    Object.entries(attributes).find(([key]) => /^(title|src|name)$/.test(key)) ?? [];
  return name ? `${tag}[${name}="${(value ?? '').replace(/["\\]/g, '\\$&')}"]` : tag;
}

/** The proportion that its markup states, else that of films. */
function getRatio({ attributes }: FrameFact): string {
  const [width, height] = [Number(attributes.width), Number(attributes.height)];
  const ratio = width > 0 && height > 0 ? `${width} / ${height}` : '16 / 9';
  return `width: 100%; height: auto; aspect-ratio: ${ratio};`;
}

/** Its own style outdoes whatever a style sheet says. */
function isInline({ attributes }: FrameFact): boolean {
  return /(^|;)\s*height\s*:/i.test(attributes.style ?? '');
}

/**
 * Heights by the width of the window. Between two windows that were looked at the greater of their heights
 * stands: there the document needs no more than that.
 */
function writeHeights(selector: string, rows: readonly FrameFitRow[], inline: boolean): string {
  const needed = new Map<number, number>();
  for (const row of rows)
    if (row.needed !== null)
      needed.set(row.window, Math.max(row.needed, needed.get(row.window) ?? 0));
  const steps = [...needed].sort(([a], [b]) => a - b);
  const heights = steps.map(([from, height], i) => ({
    from,
    height: Math.max(height, steps[i + 1]?.[1] ?? 0),
  }));
  const lines = flatMap(heights, ({ from, height }, i) => {
    if (i > 0 && height === heights[i - 1]!.height) return [];
    const rule = `${selector} { height: ${height}px${inline ? ' !important' : ''}; }`;
    return i === 0 ? [rule] : [`@media (min-width: ${from}px) { ${rule} }`];
  });
  return lines.join('\n');
}
