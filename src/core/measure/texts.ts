import type { RenderOf } from '../check.js';
import type { FrameFact, TextFact } from '../evidence.js';
import { flatMap } from '../lists.js';
import { listAround, type Markup, type MarkupElement } from '../markup/markup.js';
import { getAttribute, getTagSpan } from '../markup/markup.js';
import { matchesSelector } from '../markup/selectors.js';
import {
  findDeclaration,
  listByWeight,
  readStyles,
  type StyleDeclaration,
} from '../markup/styles.js';
import { MARKS } from '../standards/elements.js';
import { getElementKey } from '../search/spans.js';
import type { Span } from '../snippet.js';
import { blameElement, getBlamed, type Blame } from './blame.js';
import { getContrast } from './contrast.js';

/** A text in one render that is smaller than the house wants it. */
export interface SmallText {
  render: RenderOf<'texts' | 'frames'>;
  text: TextFact;
  /** The size it has where it is largest, px. */
  largest: number;
}

/** What is smaller is not there to be read. */
const LEAST = 3;
const TOLERANCE = 0.05;

/** The texts that are under a size, smallest first; `elsewhere`: those that reach it in another window, or those that never do. */
export function listSmallTexts(
  renders: readonly RenderOf<'texts' | 'frames'>[],
  limit: number,
  elsewhere: boolean,
): SmallText[] {
  const largest = new Map<string, number>();
  const all = flatMap(renders, (render) =>
    [...render.texts, ...flatMap(render.frames, readFramed)]
      .filter(isRead)
      .map((text) => ({ render, text, key: getElementKey(text) })),
  );
  for (const { key, text } of all) largest.set(key, Math.max(largest.get(key) ?? 0, text.size));
  return all
    .map(({ render, text, key }) => ({ render, text, largest: largest.get(key)! }))
    .filter((one) => one.text.size < limit - TOLERANCE)
    .filter((one) => one.largest >= limit - TOLERANCE === elsewhere)
    .sort((a, b) => a.text.size - b.text.size);
}

/** The smallest text in a frame's document, as it is seen: the frame may be scaled, and its document with it. */
function readFramed(frame: FrameFact): TextFact[] {
  const { inner, scale = 1, ...element } = frame;
  if (!inner?.smallest) return [];
  const { size, sample } = inner.smallest;
  const seen = { size: Math.round(size * scale * 100) / 100, scale, sample };
  return [{ ...element, ...seen, ...UNPAINTED }];
}

/** Of a text in a frame only the size is known. */
const UNPAINTED = {
  bold: false,
  colour: null,
  ground: null,
  area: null,
  given: false,
  missingFamily: null,
  disabled: false,
};

/** Somebody is to read it: it is on the page, and no mark. */
export function isRead({ shown, box, tag, mark = MARKS.has(tag), size }: TextFact): boolean {
  const there = shown && box.width > 1 && box.height > 1 && box.x + box.width > 0;
  return there && size >= LEAST && !mark;
}

/** What makes a text small: what scales it, else its font size where that is declared, else its tag. */
export function blameText(markup: Markup, text: TextFact): Blame {
  const blame = blameElement(markup, text);
  const element = getBlamed(markup, blame);
  const where =
    element && (text.scale < 1 ? findScaling(markup, element) : findSize(markup, element));
  return where ? { ...blame, where } : blame;
}

function findSize(markup: Markup, element: MarkupElement): Span | null {
  for (const at of listAround(element)) {
    const found =
      findDeclaration(markup, at, ['font-size', 'font']) ?? getAttribute(at, 'font-size');
    if (found) return toSpan(found);
  }
  return null;
}

function findScaling(markup: Markup, element: MarkupElement): Span | null {
  for (const at of listAround(element)) {
    const found = findDeclaration(markup, at, ['zoom', 'scale', 'transform']);
    if (found) return toSpan(found);
    if (at.name === 'svg') return toSpan(getTagSpan(at));
  }
  return null;
}

function toSpan({ offset, endOffset }: Span): Span {
  return { offset, endOffset };
}

/** A text with what it is painted with, and on. */
export interface PaintedText {
  sample: string;
  colour: string;
  ground: string;
  contrast: number;
}

/** How well a text can be told from what is behind it; null where nobody is to read it, or that is not the snippet's doing, or not known. */
export function readContrast(text: TextFact): PaintedText | null {
  const { colour, ground, sample, given, disabled } = text;
  if (!isRead(text) || !given || disabled || colour === null || ground === null) return null;
  return { sample, colour, ground, contrast: getContrast(colour, ground) };
}

/** What was measured of it, in a few words. */
export function formatContrast({
  contrast,
  colour,
  ground,
}: Pick<PaintedText, 'contrast' | 'colour' | 'ground'>): string {
  return `${formatRatio(contrast)}, ${colour} on ${ground}`;
}

/** Rounded down: what is not reached is not said to be. */
export function formatRatio(contrast: number): string {
  return `${Math.floor(contrast * 100) / 100}:1`;
}

/** What can set the colour of letters. */
const COLOURS = ['color', '-webkit-text-fill-color'];

/** What sets the colour of the text, before all what sets just the one that was painted: of what is around it too; else its tag. */
export function locateColour(markup: Markup, blame: Blame, painted: string): Span {
  const element = getBlamed(markup, blame);
  for (const at of listAround(element)) {
    const all = listByWeight(markup, at, COLOURS);
    const sets = ({ value }: StyleDeclaration) => toLong(value) === painted;
    const found = all.find(sets) ?? listOfFirstLine(markup, at).find(sets) ?? all[0];
    if (found) return { offset: found.offset, endOffset: found.endOffset };
  }
  return blame.where;
}

/** What rules state of the first line of an element's text. */
function listOfFirstLine(markup: Markup, element: MarkupElement): StyleDeclaration[] {
  return readStyles(markup).filter(({ property, selector }) => {
    const [subject, pseudo] = selector?.split(/::?first-line\s*$/) ?? [];
    const isIt = COLOURS.includes(property) && pseudo !== undefined;
    return isIt && matchesSelector(element, subject!.trim() || '*');
  });
}

/** A colour with two digits for each part; all else as it is. */
function toLong(value: string): string {
  const short = /^#([\da-f])([\da-f])([\da-f])$/i.exec(value.trim());
  const long = short
    ? `#${short
        .slice(1)
        .map((one) => one + one)
        .join('')}`
    : value.trim();
  return long.toLowerCase();
}
