import * as z from 'zod';
import { defineKind } from '../kind.js';

/** What windows and visitors are asked for, in the words it is done with: told in one window of a kind. */
export const asks = defineKind({
  inPage: false,
  files: ['script', 'style'],
  schema: z.object({
    /** By scripts and sheets that the snippet loads. */
    files: z.array(z.string()),
    /** By the page around, of the colour scheme alone. */
    page: z.array(z.string()),
  }),
  empty: { files: [], page: [] },
});
export type AsksFact = z.output<typeof asks.schema>;
