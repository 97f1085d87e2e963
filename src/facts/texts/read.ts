import { SLOT_ATTRIBUTE } from '../../core/host/slot-attribute.js';
import { UNSEEN } from '../../core/standards/elements.js';
import { isCommonFamily } from '../../core/standards/fonts.js';
import { beginColours, readPaint } from '../../render/in-page/colours.js';
import { beginFamilies, getFirstFamily, hasFamily } from '../../render/in-page/families.js';
import { getRange, listTexts } from '../../render/in-page/ink.js';
import type { Notebook } from '../../render/in-page/observe.js';
import type { ObjectReader } from '../../render/in-page/objects.js';
import { getSample, round, toPageBox } from '../../render/in-page/shared.js';
import type { Box, OfElement } from '../common.js';
import type { TextFact } from './fact.js';

export type RawText = Omit<TextFact, OfElement>;

/** Letters of this size and more are small to nobody, px. */
const LARGE = 40;
const BOLD = 700;
const SLOT = `[${SLOT_ATTRIBUTE}]`;
const LETTERS = /[\p{L}\p{N}]/u;

/** By how much each element scales what is in it, with all around it. */
let scales = new Map<Element, number>();

export const readText: ObjectReader<RawText | null> = {
  begin() {
    scales = new Map();
    beginColours();
    beginFamilies();
  },
  fits: (real, node) => !UNSEEN.has(node.localName) && LETTERS.test(getOwnText(real)),
  read(real, node, book) {
    const scale = getScale(real, book) * (real.currentCSSZoom ?? 1);
    const size = parseFloat(getComputedStyle(real).fontSize) * scale;
    const paint = readPaint(real, node.closest(SLOT));
    const missingFamily = findMissing(real);
    if (size >= LARGE && !paint.given && missingFamily === null) return null;
    const sample = getSample(getOwnText(real));
    return {
      id: book.idOf(real),
      tag: node.localName,
      size: round(size),
      scale: round(scale),
      sample,
      bold: Number(getComputedStyle(real).fontWeight) >= BOLD,
      ...paint,
      missingFamily,
      area: paint.colour !== null && paint.ground === null ? getArea(real) : null,
      disabled: node.closest(':disabled, [aria-disabled="true"]') !== null,
    };
  },
};

function getOwnText(node: Element): string {
  return listTexts(node)
    .map((text) => text.nodeValue ?? '')
    .join(' ');
}

/** Around all its lines; null where the page's styles do not reach, so that its letters cannot be taken away. */
function getArea(real: Element): Box | null {
  if (real.getRootNode() !== document) return null;
  const lines = listTexts(real).flatMap((text) => Array.from(getRange(text).getClientRects()));
  const boxes = lines.filter(({ width, height }) => width > 0 && height > 0);
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

function getScale(real: Element, book: Notebook): number {
  const known = scales.get(real);
  if (known !== undefined) return known;
  const parent = book.parentOf(real);
  const around = parent ? getScale(parent, book) : 1;
  const own = around * getOwnScale(real);
  scales.set(real, own);
  return own;
}

/** What an element's own transform does, and of an svg its view box. */
function getOwnScale(node: Element): number {
  const { transform, scale, display } = getComputedStyle(node);
  // What stands in a line is not transformed (CSS Transforms 1, 2); what is drawn is.
  if (display === 'inline' && !(node instanceof SVGElement)) return 1;
  const [x = 1, y = x] = scale === 'none' ? [] : scale.split(' ').map(Number);
  const moved = transform === 'none' ? 1 : getSize(new DOMMatrix(transform));
  return Math.sqrt(Math.abs(x * y)) * moved * getViewScale(node);
}

function getViewScale(node: Element): number {
  if (!(node instanceof SVGSVGElement) || node.viewBox.baseVal === null) return 1;
  const { width, height } = node.viewBox.baseVal;
  const [wide, high] = getViewSize(node);
  if (!width || !height || !wide || !high) return 1;
  const [x, y] = [wide / width, high / height];
  const fit = node.getAttribute('preserveAspectRatio') ?? '';
  if (/none/.test(fit)) return Math.sqrt(x * y);
  return /slice/.test(fit) ? Math.max(x, y) : Math.min(x, y);
}

/** The room of what is drawn, in the units around it: one within another has no box of its own. */
function getViewSize(node: SVGSVGElement): [number, number] {
  return node.ownerSVGElement
    ? [node.width.baseVal.value, node.height.baseVal.value]
    : [node.clientWidth, node.clientHeight];
}

/** By how much a matrix scales, turns and shears left out. */
function getSize({ a, b, c, d }: DOMMatrix): number {
  return Math.sqrt(Math.abs(a * d - b * c));
}
