import * as z from 'zod';
import { boxSchema, objectShape } from '../common.js';
import { defineKind } from '../kind.js';

/** A drawing in the page: an outermost svg. */
const drawing = z.object({
  ...objectShape,
  /** What its lengths are counted in, as it says; null where it does not. */
  viewBox: boxSchema.nullable(),
  /** From where to where something is painted in it, with its lines, in those lengths; null where that is not plain. */
  bounds: boxSchema.nullable(),
  /** What is painted beyond it is cut off. */
  cuts: z.boolean(),
  /** Its colours, and what is painted behind it, `#rrggbb`; empty where that is not plain. */
  paints: z.array(z.object({ colour: z.string(), ground: z.string() })),
});
export type DrawingFact = z.output<typeof drawing>;

export const drawings = defineKind({
  inPage: true,
  ofElements: true,
  schema: z.array(drawing),
  empty: [],
});
