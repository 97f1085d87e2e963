import * as z from 'zod';
import { objectShape } from '../common.js';
import { defineKind } from '../kind.js';

/** An element that moves, fades or blinks by itself. */
const motion = z.object({
  ...objectShape,
  /** By styles or code that animate it, as a marquee, by the drawing itself (SMIL), or as a picture of several frames. */
  how: z.enum(['animated', 'marquee', 'drawing', 'picture']),
  /** It is a picture, a drawing or a part of one. */
  pictured: z.boolean(),
  /** For how long, s; null where it has no end. */
  seconds: z.number().nullable(),
  /** What changes, as CSS properties; empty where it is not told. */
  changes: z.array(z.string()),
});
export type MotionFact = z.output<typeof motion>;

export const motions = defineKind({
  inPage: true,
  ofElements: true,
  files: ['picture'],
  schema: z.array(motion),
  empty: [],
});
