import * as z from 'zod';
import { objectShape } from '../common.js';
import { defineKind } from '../kind.js';

/** A rule of the page's own that is for an element of the snippet's, and makes it otherwise than it was made to be. */
const reach = z.object({
  ...objectShape,
  tag: z.string(),
  /** The rule's selectors. */
  rule: z.string(),
  /** By what its sheet is known. */
  sheet: z.string(),
  /**
   * It goes by a name that both use; it outdoes what the snippet states; or with it something does not fit, is cut
   * off, cannot be read, is not shown, or takes no clicks, and without it does.
   */
  way: z.enum(['name', 'stated', 'wide', 'cut', 'faint', 'hidden', 'dead']),
  /** The class or id that both use, as selectors have it; '' where it is not that. */
  name: z.string(),
  /** How many of the snippet's elements it changes so. */
  elements: z.int(),
  /** What of the first of them; empty where it breaks something. */
  changes: z.array(z.object({ what: z.string(), with: z.string(), without: z.string() })),
});
export type ReachFact = z.output<typeof reach>;

/** Found by taking the page's rules away one at a time, on pages of the house's own. */
export const reaching = defineKind({
  inPage: true,
  schema: z.array(reach),
  empty: [],
});
