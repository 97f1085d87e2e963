import type { Box } from '../../core/evidence.js';
import { listParents, round } from './shared.js';

/** A shape that is painted in a drawing. */
export interface Shape {
  node: SVGGraphicsElement;
  /** What it is filled and lined with, as computed; a picture, a pattern or another's shape is not among them. */
  colours: string[];
  /** By how much its lines reach beyond it, in its own lengths. */
  line: number;
}

const SHAPES = 'path, rect, circle, ellipse, line, polyline, polygon';
/** What is painted in other ways, or not at all. */
const OTHERS = 'image, use, foreignObject, text, filter, animate, animateTransform, animateMotion';
const STORED = 'defs, symbol, clipPath, mask, pattern, marker';
const MOST = 400;

/** The shapes that are painted in a drawing; null where it has more than shapes of plain colour. */
export function listShapes(svg: SVGSVGElement): Shape[] | null {
  if (svg.querySelector(OTHERS)) return null;
  const all = [...svg.querySelectorAll<SVGGraphicsElement>(SHAPES)];
  if (all.length > MOST) return null;
  const shapes: Shape[] = [];
  for (const node of all) {
    if (node.closest(STORED) || !node.checkVisibility(SEEN)) continue;
    if (isAltered(node, svg)) return null;
    const style = getComputedStyle(node);
    const colours = [
      ...(Number(style.fillOpacity) > 0 ? [style.fill] : []),
      ...(Number(style.strokeOpacity) > 0 ? [style.stroke] : []),
    ].filter((one) => one !== 'none' && one !== '');
    if (colours.some((one) => one.startsWith('url('))) return null;
    const painted = colours.filter((one) => !/^rgba\(.*, 0\)$|^transparent$/.test(one));
    const line = painted.includes(style.stroke) ? parseFloat(style.strokeWidth) / 2 : 0;
    if (painted.length > 0) shapes.push({ node, colours: painted, line });
  }
  return shapes;
}

const SEEN = { opacityProperty: true, visibilityProperty: true };

/** It is cut, covered or blurred on its way out. */
function isAltered(node: Element, svg: Element): boolean {
  for (const one of listParents(node)) {
    const { clipPath, maskImage, filter, mixBlendMode } = getComputedStyle(one);
    const isMasked = maskImage !== '' && maskImage !== 'none';
    if (clipPath !== 'none' || isMasked || filter !== 'none' || mixBlendMode !== 'normal')
      return true;
    if (one === svg) return false;
  }
  return false;
}

/** From where to where they are painted, in the lengths of the drawing; null where that is not plain. */
export function measureShapes(svg: SVGSVGElement, shapes: readonly Shape[]): Box | null {
  const back = svg.getScreenCTM()?.inverse();
  if (!back || shapes.length === 0) return null;
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { node, line } of shapes) {
    const own = node.getScreenCTM();
    if (!own) continue;
    const matrix = back.multiply(own);
    // Turned, the box around it is larger than what is painted.
    if (Math.abs(matrix.b) > FLAT || Math.abs(matrix.c) > FLAT) return null;
    const { x, y, width, height } = node.getBBox();
    if (width === 0 && height === 0) continue;
    const [ax, ay] = [matrix.a * (x - line) + matrix.e, matrix.d * (y - line) + matrix.f];
    const [bx, by] = [
      matrix.a * (x + width + line) + matrix.e,
      matrix.d * (y + height + line) + matrix.f,
    ];
    [left, right] = [Math.min(left, ax, bx), Math.max(right, ax, bx)];
    [top, bottom] = [Math.min(top, ay, by), Math.max(bottom, ay, by)];
  }
  if (left > right) return null;
  return { x: round(left), y: round(top), width: round(right - left), height: round(bottom - top) };
}

const FLAT = 1e-4;
