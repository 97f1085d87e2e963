import * as z from 'zod';
import { sourceSchema } from '../common.js';
import { defineKind } from '../kind.js';

/** Something that the page's Content-Security-Policy refused (CSP 3, 5.3). */
const refusal = z.object({
  /** The directive by its own name, also where a wider one stands for it: `script-src-elem`. */
  directive: z.string(),
  /** An address or its origin; `inline`, `eval` and the like where it has none. */
  blocked: z.string(),
  from: sourceSchema,
});
export type PolicyFact = z.output<typeof refusal>;

export const policy = defineKind({ inPage: true, schema: z.array(refusal), empty: [] });
