import * as z from 'zod';
import { objectShape } from '../common.js';
import { defineKind } from '../kind.js';

const control = z.object({
  ...objectShape,
  tag: z.string(),
  kind: z.enum(['link', 'button', 'field']),
  /** Hidden from assistive technology by its markup. */
  ignored: z.boolean(),
  /** By the accessible-name computation; '' where nothing gives it one. */
  name: z.string(),
  /** A picture without any text alternative is in it. */
  pictured: z.boolean(),
});
export type ControlFact = z.output<typeof control>;

/** Links, buttons and fields. */
export const controls = defineKind({
  inPage: true,
  ofElements: true,
  schema: z.array(control),
  empty: [],
});
