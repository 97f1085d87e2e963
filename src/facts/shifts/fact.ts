import * as z from 'zod';
import { whoShape } from '../common.js';
import { defineKind } from '../kind.js';

/** What of the snippet's made the layout jump. */
const cause = z.object({
  ...whoShape,
  /** A script put it in, it got its size late, or it was moved itself. */
  how: z.enum(['put-in', 'sized-late', 'moved']),
});

export const shifts = defineKind({
  inPage: true,
  layout: true,
  schema: z.object({
    /** The sum of all layout shift scores (Layout Instability) that no action of a visitor's explains. */
    score: z.number(),
    /**
     * The same of pictures and films of the snippet's without a size: whether they come before the page is first
     * painted is chance, so that they are not among the others.
     */
    loaded: z.number(),
    /** Where they come from, as far as it is known, each with its part of the sum, the largest first. */
    causes: z.array(z.object({ score: z.number(), ...cause.shape })),
  }),
  empty: { score: 0, loaded: 0, causes: [] },
});
export type ShiftsFact = z.output<typeof shifts.schema>;
