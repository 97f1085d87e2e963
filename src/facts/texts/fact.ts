import * as z from 'zod';
import { boxSchema, objectShape } from '../common.js';
import { defineKind } from '../kind.js';

/** An element that has text of its own. */
const text = z.object({
  ...objectShape,
  tag: z.string(),
  /** It is set small by custom, or stands in what is: a footnote's number, a fraction; left out: by its tag alone. */
  mark: z.boolean().optional(),
  /** How large its letters are as seen, px: the font size times every transform, zoom and scaling around it. */
  size: z.number(),
  /** By how much they are scaled. */
  scale: z.number(),
  /** How the text begins. */
  sample: z.string(),
  /** It stands in an empty field, and is no text of the element's; left out: it is one. */
  placeholder: z.boolean().optional(),
  /** Its letters are bold (CSS Fonts 4: a weight of 700 and more). */
  bold: z.boolean(),
  /** Its colour as painted, `#rrggbb`; null where its letters are no plain colour. */
  colour: z.string().nullable(),
  /** The colour behind it; null where that is not one, or not known. */
  ground: z.string().nullable(),
  /** Where its letters stand, page px, where what is behind them is no plain colour; else null. */
  area: boxSchema.nullable(),
  /** What it is painted with is the snippet's own, and not all of the page around it. */
  given: z.boolean(),
  /** The family that it asks for first, where that is not there and not everybody has it; else null. */
  missingFamily: z.string().nullable(),
  /** Of a control that is not in use. */
  disabled: z.boolean(),
});
export type TextFact = z.output<typeof text>;

export const texts = defineKind({
  inPage: true,
  ofElements: true,
  schema: z.array(text),
  empty: [],
});
