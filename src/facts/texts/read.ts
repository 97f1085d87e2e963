import { UNSEEN } from '../../core/standards/elements.js';
import { isCommonFamily } from '../../core/standards/fonts.js';
import { beginClipping, isClippedAway } from '../../render/in-page/clip.js';
import { beginColours, readPaint } from '../../render/in-page/colours.js';
import { beginFamilies, getFirstFamily, hasFamily } from '../../render/in-page/families.js';
import {
  getOwnText,
  getPlaceholder,
  hasLetters,
  isMark,
  listLines,
} from '../../render/in-page/ink.js';
import { getFaintest } from '../../render/in-page/letters.js';
import { fits, splitRules, type SheetRule } from '../../render/in-page/host-rules.js';
import type { Notebook } from '../../render/in-page/observe.js';
import type { ObjectReader } from '../../render/in-page/object-reader.js';
import { splitSelectors } from '../../render/in-page/shared-names.js';
import { beginScales, getScale } from '../../render/in-page/scale.js';
import { getSample, round, toPageBox } from '../../render/in-page/shared.js';
import { findSlotAround } from '../../render/in-page/slots.js';
import type { Box, OfElement } from '../common.js';
import type { TextFact } from './fact.js';

export type RawText = Omit<TextFact, OfElement>;

/** Letters of this size and more are small to nobody, px. */
const LARGE = 40;
const BOLD = 700;

/** The snippets' own rules, once a placeholder was met. */
let ownRules: readonly SheetRule[] | null = null;

export const readText: ObjectReader<RawText | null> = {
  begin() {
    beginClipping();
    beginScales();
    beginColours();
    beginFamilies();
    ownRules = null;
  },
  fits: (real, node) =>
    (!UNSEEN.has(node.localName) && hasLetters(getOwnText(real))) ||
    hasLetters(getPlaceholder(node)),
  read(real, node, book) {
    const placeholder = getPlaceholder(node);
    if (placeholder !== '') return readPlaceholder(real, node, book, placeholder);
    if (isClippedAway(real, () => listLines(real))) return null;
    const scale = getScale(real, book);
    const { style, paint } = getFaintest(real, findSlotAround(node));
    const size = parseFloat(style.fontSize) * scale;
    const missingFamily = findMissing(real);
    if (size >= LARGE && !paint.given && missingFamily === null) return null;
    const sample = getSample(getOwnText(real));
    return {
      id: book.idOf(real),
      tag: node.localName,
      mark: isMark(real),
      size: round(size),
      scale: round(scale),
      sample,
      bold: Number(style.fontWeight) >= BOLD,
      ...paint,
      missingFamily,
      area: paint.colour !== null && paint.ground === null ? getArea(real) : null,
      disabled: node.closest(':disabled, [aria-disabled="true"]') !== null,
    };
  },
};

/** What stands in an empty field; only the snippet's own look of it is judged, and the browser's is sound. */
function readPlaceholder(
  real: Element,
  node: Element,
  book: Notebook,
  text: string,
): RawText | null {
  const style = getComputedStyle(real, '::placeholder');
  const paint = readPaint(real, findSlotAround(node), style);
  if (paint.colour === null) return null;
  const scale = getScale(real, book);
  return {
    ...{ id: book.idOf(real), tag: node.localName, placeholder: true, mark: false },
    ...{ size: round(parseFloat(style.fontSize) * scale), scale: round(scale) },
    sample: getSample(text),
    bold: Number(style.fontWeight) >= BOLD,
    ...paint,
    given: isStyled(real),
    missingFamily: null,
    area: null,
    disabled: node.matches(':disabled, [aria-disabled="true"]'),
  };
}

/** Whether a rule of a snippet's is for what stands in the field while it is empty. */
function isStyled(real: Element): boolean {
  ownRules ??= splitRules(new Set()).own;
  return ownRules.some(({ rule: { selectorText } }) =>
    splitSelectors(selectorText).some((one) => {
      const [subject, pseudo] = one.split(/::?(?:-webkit-input-)?placeholder\s*$/);
      return pseudo !== undefined && fits(real, subject!.trim() || '*');
    }),
  );
}

/** Around all its lines; null where there are none. */
function getArea(real: Element): Box | null {
  const boxes = listLines(real);
  if (boxes.length === 0) return null;
  const left = Math.min(...boxes.map((one) => one.left));
  const top = Math.min(...boxes.map((one) => one.top));
  const right = Math.max(...boxes.map((one) => one.right));
  const bottom = Math.max(...boxes.map((one) => one.bottom));
  return toPageBox(new DOMRect(left, top, right - left, bottom - top));
}

function findMissing(real: Element): string | null {
  const family = getFirstFamily(getComputedStyle(real));
  return family && !isCommonFamily(family) && !hasFamily(family) ? family : null;
}
