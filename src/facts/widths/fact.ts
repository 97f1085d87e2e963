import * as z from 'zod';
import { sourceSchema } from '../common.js';
import { defineKind } from '../kind.js';

/** Windows, px: from the narrowest to the widest, both included. */
export const intervalSchema = z.object({ from: z.int(), to: z.int() });
export type Interval = z.output<typeof intervalSchema>;

/** In which windows something is too wide. */
const spanSchema = intervalSchema.extend({
  /** What it is too wide for: the window, its slot, or as a frame by its own box. */
  for: z.enum(['page', 'slot', 'frame']),
  /** The element; null for the page where no element of the snippet’s reaches as far. */
  element: z.object({ from: sourceSchema, selector: z.string().nullable() }).nullable(),
  /** The most px by which it is, and in which window. */
  most: z.number(),
  at: z.int(),
  /** An edge is not exact: the windows beside it were not tried. */
  near: z.boolean(),
});
export type WidthSpan = z.output<typeof spanSchema>;

/** Slots by the width of their content boxes, px, and whether everything fits in them. */
const roomSchema = z.object({ from: z.number(), to: z.number(), fits: z.boolean() });
export type Room = z.output<typeof roomSchema>;

/** What windows between those that were rendered do to the snippet, tried on a copy of the page. */
export const widths = defineKind({
  inPage: true,
  extra: true,
  schema: z.object({
    /** Which windows were searched; none where nothing was. */
    searched: z.array(intervalSchema),
    /** Why they were not, or not all, where they were to be. */
    unsearched: z.string().nullable(),
    /** The spans are what a copy shows of a page that can tell: only loads can confirm them. */
    guessed: z.boolean(),
    /** How many of them were tried. */
    tried: z.int(),
    spans: z.array(spanSchema),
    /** From the narrowest slot to the widest. */
    rooms: z.array(roomSchema),
    /** Where the page is wider than the window without a snippet. */
    wide: z.array(intervalSchema.extend({ scrollWidth: z.number() })),
  }),
  empty: {
    searched: [],
    unsearched: null,
    guessed: false,
    tried: 0,
    spans: [],
    rooms: [],
    wide: [],
  },
});
export type WidthsFact = z.output<typeof widths.schema>;
export type WideSpan = WidthsFact['wide'][number];
