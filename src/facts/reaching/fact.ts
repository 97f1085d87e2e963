import * as z from 'zod';
import { objectShape } from '../common.js';
import { defineKind } from '../kind.js';

/** A rule of the page's own that is for an element of the snippet's, and makes it look otherwise. */
const reach = z.object({
  ...objectShape,
  tag: z.string(),
  /** The rule's selectors. */
  rule: z.string(),
  /** How many of the snippet's elements it changes. */
  elements: z.int(),
  changes: z.array(
    z.object({
      what: z.enum(['width', 'height', 'color', 'background-color', 'display']),
      with: z.string(),
      without: z.string(),
    }),
  ),
});
export type ReachFact = z.output<typeof reach>;

/** Found by taking the page's rules away one at a time, on pages of the house's own. */
export const reaching = defineKind({
  inPage: true,
  schema: z.array(reach),
  empty: [],
});
