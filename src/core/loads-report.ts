import * as z from 'zod';
import { FILE_TYPES } from '../facts/file-type.js';

const load = z.object({
  address: z.string(),
  host: z.string(),
  thirdParty: z.boolean().describe('Of another registrable domain than the page.'),
  type: z.enum(FILE_TYPES).describe('What it was asked for as.'),
  status: z.int().nullable(),
  wire: z.number().describe('Bytes over the wire.'),
  unpacked: z.number(),
  failed: z.string().nullable().describe('Why it did not come; null where it did.'),
  fresh: z
    .number()
    .nullable()
    .describe(
      'For how many seconds a browser may use it again without asking; 0: not at all; null where it does not say.',
    ),
  offset: z
    .int()
    .nullable()
    .describe('Where the tag of the snippet begins that led to it; null where that is not known.'),
  line: z.int().nullable().describe('The line of that tag.'),
  by: z
    .int()
    .nullable()
    .describe('Which of the list asked for it, from 0; null: the snippet itself, or not known.'),
  inFrame: z.boolean().describe('By a document in a frame.'),
});

/** Who loads whom, in one render. */
export const loadsReport = z.object({
  slot: z.string(),
  viewport: z.string(),
  requests: z.array(load).describe('In the order in which they were made.'),
});

export type LoadsReport = z.infer<typeof loadsReport>;
export type LoadReport = z.infer<typeof load>;
