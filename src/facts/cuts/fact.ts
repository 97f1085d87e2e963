import * as z from 'zod';
import { objectShape, whoShape } from '../common.js';
import { defineKind } from '../kind.js';

/** Text, a picture or a control that something clips. */
const cut = z.object({
  ...objectShape,
  tag: z.string(),
  what: z.enum(['text', 'picture', 'control']),
  /** How the text begins; '' for all else. */
  sample: z.string(),
  /** To which side: `x` sideways, `y` up or down. */
  axis: z.enum(['x', 'y']),
  /** By how many px it lies outside. */
  outside: z.number(),
  /** Nothing of it is inside. */
  whole: z.boolean(),
  /** What clips it: an element of the snippet's own, something else on the page, or the window. */
  by: z.enum(['own', 'page', 'window']),
  clipper: z.object(whoShape).nullable(),
});
export type CutFact = z.output<typeof cut>;

export const cuts = defineKind({
  inPage: true,
  layout: true,
  ofElements: true,
  schema: z.array(cut),
  empty: [],
});
