import * as z from 'zod';
import { boxSchema } from '../common.js';
import { defineKind } from '../kind.js';

export const slot = defineKind({
  inPage: true,
  layout: true,
  schema: z.object({
    name: z.string(),
    /** The content box, page px. */
    box: boxSchema,
    /** By how many px its content reaches beyond it. */
    overhang: z.number(),
    /** Text of its own shows in it, outside of all elements. */
    text: z.boolean(),
    /** The font family of what stands in it and asks for none. */
    family: z.string().default(''),
    /** The same on the page around, where it stands in a frame of its own; else null. */
    pageFamily: z.string().nullable().default(null),
    /** It stands inside a form of the host page's. */
    inForm: z.boolean(),
  }),
  empty: {
    name: '',
    box: { x: 0, y: 0, width: 0, height: 0 },
    overhang: 0,
    text: false,
    family: '',
    pageFamily: null,
    inForm: false,
  },
});
export type SlotFact = z.output<typeof slot.schema>;
