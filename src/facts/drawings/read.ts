import { beginColours, readPaintOf } from '../../render/in-page/colours.js';
import { listShapes, measureShapes, type Shape } from '../../render/in-page/drawing.js';
import type { ObjectReader } from '../../render/in-page/object-reader.js';
import type { OfElement } from '../common.js';
import type { DrawingFact } from './fact.js';

export type RawDrawing = Omit<DrawingFact, OfElement>;

/** More colours than this are no icon. */
const MOST = 12;

export const readDrawing: ObjectReader<RawDrawing> = {
  begin: beginColours,
  fits: (real) => real instanceof SVGSVGElement && real.ownerSVGElement === null,
  read(real, _node, book) {
    const svg = real as SVGSVGElement;
    const shapes = listShapes(svg);
    const { x, y, width, height } = svg.viewBox.baseVal ?? {};
    return {
      id: book.idOf(svg),
      viewBox: svg.hasAttribute('viewBox') && width > 0 ? { x, y, width, height } : null,
      bounds: shapes && measureShapes(svg, shapes),
      cuts: getComputedStyle(svg).overflow !== 'visible',
      paints: shapes ? readPaints(shapes) : [],
    };
  },
};

function readPaints(shapes: readonly Shape[]): RawDrawing['paints'] {
  const paints = new Map<string, RawDrawing['paints'][number]>();
  for (const { node, colours } of shapes) {
    for (const colour of colours) {
      const paint = readPaintOf(node, colour);
      // What is not plain may well be seen.
      if (paint === null) return [];
      paints.set(JSON.stringify(paint), paint);
    }
    if (paints.size > MOST) return [];
  }
  return [...paints.values()];
}
