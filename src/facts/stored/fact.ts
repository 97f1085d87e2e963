import * as z from 'zod';
import { defineKind } from '../kind.js';

/** Something that was stored on the visitor's device, without the visitor having done anything. */
const storedThing = z.object({
  kind: z.enum(['cookie', 'local', 'session', 'database', 'cache']),
  host: z.string(),
  name: z.string(),
  /** For how long a cookie is kept, days; null for what goes with the browser, or has no end. */
  days: z.number().nullable(),
});
export type StoredFact = z.output<typeof storedThing>;

export const stored = defineKind({
  inPage: true,
  unstyled: true,
  files: ['document'],
  schema: z.array(storedThing),
  empty: [],
});
