import * as z from 'zod';
import { sourceSchema } from '../common.js';
import { defineKind } from '../kind.js';

/** For how long code of the snippet's had the page's main thread until the page came to rest, by its script. */
const timed = z.object({
  from: sourceSchema.nullable(),
  address: z.string().nullable(),
  /** By the clock of the processor, as fast as it is. */
  ms: z.number(),
});
export type TimedFact = z.output<typeof timed>;

export const times = defineKind({
  inPage: true,
  unstyled: true,
  files: ['script'],
  schema: z.object({
    /** All code of the page, of whomever, ms: more than a profile finds in functions. Told in one window of a kind; else null. */
    all: z.number().nullable(),
    /** Load by load, where it was timed. */
    loads: z.array(z.array(timed)),
  }),
  empty: { all: null, loads: [] },
});
