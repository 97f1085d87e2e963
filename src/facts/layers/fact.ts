import * as z from 'zod';
import { boxSchema, nodeShape, sourceSchema, whoShape } from '../common.js';
import { defineKind } from '../kind.js';

/** An element of the page, by its place in the snippet where it is the snippet's. */
const who = z.object({
  ...whoShape,
  /** null where it is not the snippet's own. */
  from: sourceSchema.nullable(),
});

/** Something that a visitor should be able to point at, and cannot at any scroll position. */
const covered = z.object({
  ...nodeShape,
  ...who.shape,
  what: z.enum(['frame', 'player', 'control']),
  /** What it says, in short. */
  name: z.string(),
  box: boxSchema,
  /** What lies over its middle, or over most of it. */
  by: who.extend({
    /** A visitor can do something with it. */
    control: z.boolean(),
  }),
});
export type CoveredFact = z.output<typeof covered>;

/** All that is covered: of the snippet's own, by whatever; of the page's, by the snippet. */
export const layers = defineKind({
  inPage: true,
  layout: true,
  ofElements: true,
  schema: z.array(covered),
  empty: [],
});
