import * as z from 'zod';
import { codeShape } from '../common.js';
import { defineKind } from '../kind.js';

/** Code of the snippet's that goes on when the page has come to rest. */
const work = z.object({
  ...codeShape,
  /** Of the time of the page's main thread, 0 to 1: the middle of three measures. */
  share: z.number(),
});
export type WorkFact = z.output<typeof work>;

/** Told in one window of a kind. */
export const unrest = defineKind({
  inPage: true,
  unstyled: true,
  files: ['script'],
  schema: z.array(work),
  empty: [],
});
