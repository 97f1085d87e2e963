import * as z from 'zod';
import { boxSchema, whoShape } from '../common.js';
import { defineKind } from '../kind.js';

/** A part of the snippet on which a swipe was begun that did not move the page. */
const caught = z.object({
  ...whoShape,
  box: boxSchema,
  /** The code or the styles take it, or what is inside scrolls instead. */
  how: z.enum(['taken', 'scrolls']),
});

/** What keys and fingers do to it: tried last of all, in one render of each slot. */
export const handling = defineKind({
  inPage: true,
  schema: z.object({
    /** Where the focus is that neither Tab nor Shift+Tab gets out of the snippet; null where they do. */
    trapped: z
      .object({ ...whoShape, /** How often they were pressed. */ presses: z.int() })
      .nullable(),
    caught: z.array(caught),
    /** Of links, where there is code: whether a click goes to the top of the page, or loads it anew. */
    links: z.array(z.object({ ...whoShape, jumps: z.boolean() })).default([]),
    /** Films that ran, and that a click on them or on a button has paused. */
    stopped: z.array(z.object(whoShape)).default([]),
    /** Films that rested, and that a click on them, on a button, or a pointer over them has started. */
    started: z.array(z.object(whoShape)).default([]),
  }),
  empty: { trapped: null, caught: [], links: [], stopped: [], started: [] },
});
export type HandlingFact = z.output<typeof handling.schema>;
