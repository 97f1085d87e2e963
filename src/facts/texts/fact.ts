import { z } from 'zod';
import { objectShape } from '../common.js';
import { defineKind } from '../kind.js';

/** An element that has text of its own. */
const text = z.object({
  ...objectShape,
  tag: z.string(),
  /** How large its letters are as seen, px: the font size times every transform, zoom and scaling around it. */
  size: z.number(),
  /** By how much they are scaled. */
  scale: z.number(),
  /** How the text begins. */
  sample: z.string(),
});
export type TextFact = z.output<typeof text>;

export const texts = defineKind({ inPage: true, schema: z.array(text), empty: [] });
