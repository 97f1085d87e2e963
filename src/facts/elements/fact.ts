import * as z from 'zod';
import { boxSchema, elementStyleSchema, nodeShape, sourceSchema } from '../common.js';
import { defineKind } from '../kind.js';

/** An element of the snippet's own. */
const element = z.object({
  ...nodeShape,
  parent: z.int().nullable(),
  tag: z.string(),
  from: sourceSchema,
  /** For what a script made: a selector to find it by. */
  selector: z.string().nullable(),
  box: boxSchema,
  /**
   * From where to where (page px) something of its own shows: its box where that is painted, its text and
   * the room that it has for text. The right is left of the left where nothing does.
   */
  inkLeft: z.number(),
  inkRight: z.number(),
  /** A visitor can see it, when it is scrolled to. */
  shown: z.boolean(),
  /** It has a box and is not hidden: assistive technology meets it, also where it is transparent or in a closed part. */
  exposed: z.boolean(),
  /** Whether an ancestor clips it or scrolls it. */
  clipped: z.boolean(),
  style: elementStyleSchema,
  /**
   * Where it was when the page had loaded, from where to where, page px, and whether something was in motion
   * then; null where nothing could change since, or it was not there yet.
   */
  early: z
    .object({ left: z.number(), right: z.number(), animated: z.boolean() })
    .nullable()
    .default(null),
});
export type ElementFact = z.output<typeof element>;

export const elements = defineKind({
  inPage: true,
  layout: true,
  ofElements: true,
  schema: z.array(element),
  empty: [],
});
