import * as z from 'zod';
import { boxSchema, sourceSchema } from '../common.js';
import { defineKind } from '../kind.js';

/** A piece of the page that flashes as it is painted: more often and larger than WCAG 2.2, 2.3.1 allows. */
const flash = z.object({
  /** The smallest of the snippet's elements that holds it; null where none does, since it is the page's own. */
  from: sourceSchema.nullable(),
  selector: z.string().nullable(),
  /** That element's; else all that flashes together, to some px. */
  box: boxSchema,
  /** How much of a field of 341 × 256 px does, px². */
  area: z.number(),
  /** The most flashes within a second: pairs of opposing changes. */
  count: z.int(),
  /** It is from and to a saturated red, with hardly a change of luminance. */
  red: z.boolean(),
});
export type FlashFact = z.output<typeof flash>;

/** Told in the windows in which the first minute is lived on. */
export const flashing = defineKind({
  inPage: true,
  files: ['picture', 'film', 'document'],
  schema: z.array(flash),
  empty: [],
});
