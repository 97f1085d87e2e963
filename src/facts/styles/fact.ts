import * as z from 'zod';
import { defineKind } from '../kind.js';

/** A declaration of the snippet's that the browser does not take. */
const refused = z.object({
  offset: z.int(),
  endOffset: z.int(),
  /** What it would take in its place; null where that is not plain. */
  instead: z.string().nullable(),
});
export type RefusedStyle = z.output<typeof refused>;

export const styles = defineKind({
  inPage: true,
  still: true,
  schema: z.array(refused),
  empty: [],
});
