import * as z from 'zod';
import { objectShape } from '../common.js';
import { defineKind } from '../kind.js';

/** A film or a sound in a frame's document. */
const medium = z.object({
  tag: z.enum(['video', 'audio']),
  address: z.string(),
  /** It asks to start by itself, or a script called play(), with its sound on. */
  asks: z.boolean(),
  started: z.boolean(),
  /** The width of its pictures by their height, of one that fills its frame; null for any other; left out: not known. */
  ratio: z.number().nullable().optional(),
});
export type InnerMedium = z.output<typeof medium>;

/** The document in a frame, of whatever origin, px; null where there is none that could be read. */
export const innerSchema = z.object({
  /** The room that the frame gives it. */
  width: z.number(),
  height: z.number(),
  /** What its content takes up. */
  scrollWidth: z.number(),
  scrollHeight: z.number(),
  /** Down to where something of its content reaches; left out: not known. */
  contentHeight: z.number().optional(),
  /** How high its content is by itself, at this width; null where it fills whatever it gets; left out: not known. */
  natural: z.number().nullable().optional(),
  /** The smallest text that shows in it, its letters in px of its own; null where it has none; left out: not known. */
  smallest: z.object({ size: z.number(), sample: z.string() }).nullable().optional(),
  /** It asks for a password; left out: not known. */
  asksPassword: z.boolean().optional(),
  /** Films and sounds in it. */
  media: z.array(medium).optional(),
  /** Features that it asked for and is not allowed (Permissions Policy). */
  refused: z.array(z.string()).optional(),
});

const frame = z.object({
  ...objectShape,
  tag: z.enum(['iframe', 'embed', 'object']),
  address: z.string(),
  attributes: z.record(z.string(), z.string()),
  /** The width of an inset border, as browsers give it, on both sides together, px; 0 where it has another or none. */
  border: z.number(),
  /** By how much it, and so its document, is scaled; left out: not known. */
  scale: z.number().optional(),
  inner: innerSchema.nullable().optional(),
  /** The heights that its document posted to the page, px: how many, the first and the last, and how often one outdid all before. */
  posted: z
    .object({ count: z.int(), first: z.number(), last: z.number(), rises: z.int() })
    .nullable()
    .optional(),
});
export type FrameFact = z.output<typeof frame>;

export const frames = defineKind({
  inPage: true,
  ofElements: true,
  files: ['document'],
  schema: z.array(frame),
  empty: [],
});
