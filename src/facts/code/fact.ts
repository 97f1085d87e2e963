import * as z from 'zod';
import { sourceSchema } from '../common.js';
import { defineKind } from '../kind.js';

/** A script of the snippet's, with how much of it has run by the time that hands have been tried. */
const runScript = z.object({
  /** null for one that stands in the snippet. */
  address: z.string().nullable(),
  from: sourceSchema.nullable(),
  /** In characters, as far as they are code that has run, or what stands around it. */
  length: z.int(),
  ran: z.int(),
});
export type RunScript = z.output<typeof runScript>;

/** Told in one window of a kind. */
export const code = defineKind({
  inPage: true,
  unstyled: true,
  files: ['script'],
  schema: z.array(runScript),
  empty: [],
});
