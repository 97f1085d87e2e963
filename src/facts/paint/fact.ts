import * as z from 'zod';
import { defineKind } from '../kind.js';

/** How a cell of a part is painted: the mean of red, green and blue, and the spread of its brightness; all from 0 to 255. */
const cell = z.tuple([z.number(), z.number(), z.number(), z.number()]);
export type Cell = z.output<typeof cell>;

/** A part of the page around, as a small picture of the window shows it. */
const part = z.object({
  offset: z.int(),
  tag: z.string(),
  words: z.string(),
  /** px. */
  width: z.number(),
  height: z.number(),
  /** From left to right, line by line; of the same part there are always as many. */
  cells: z.array(cell),
});
export type PaintedPart = z.output<typeof part>;

/** What is painted in the window, at the top of the page and where the slot is: tried in one window of a kind. */
export const paint = defineKind({
  inPage: true,
  layout: true,
  ofElements: true,
  schema: z.object({
    /** Parts of the page around that are painted otherwise than without the snippet. */
    parts: z.array(part),
    /** The snippet's own boxes look like what is behind them; null where that was not looked at. */
    blank: z.boolean().nullable(),
    /** Texts of the snippet in whose place nothing is painted, by their elements' ids. */
    unseen: z.array(z.int()),
  }),
  empty: { parts: [], blank: null, unseen: [] },
});
export type PaintFact = z.output<typeof paint.schema>;
