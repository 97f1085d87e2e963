import * as z from 'zod';
import { boxSchema } from '../facts/common.js';
import { innerSchema } from '../facts/frames/fact.js';
import { harmShotsSchema, shotSchema } from './evidence.js';
import { level, viewShape } from './finding.js';

const mark = z.object({
  number: z.int().describe('The number of the finding’s cause.'),
  level,
  box: boxSchema.describe('px of the page'),
});

const host = z.object({
  host: z.string(),
  requests: z.int(),
  wire: z.number().describe('Bytes over the wire.'),
  unpacked: z.number(),
  failed: z.int().describe('Requests that got no answer, or that were refused.'),
});

const frame = z.object({
  tag: z.string(),
  line: z.int().nullable().describe('Its line in the snippet; null where a script made it.'),
  address: z.string(),
  width: z.number(),
  height: z.number(),
  inner: innerSchema
    .nullable()
    .describe('The document in it, px; null where it could not be read.'),
});

const medium = z.object({
  tag: z.string(),
  line: z.int().nullable(),
  address: z.string(),
  width: z.number(),
  height: z.number(),
  autoplay: z.boolean(),
  muted: z.boolean(),
  started: z.boolean(),
  sound: z.boolean().nullable().describe('Whether the file has a sound track, where it is known.'),
  duration: z.number().nullable().describe('Seconds.'),
});

/** What is said of one render. */
export const renderReport = z.object({
  slot: z.string(),
  slotWidth: z.number().nullable().describe('The content width of the slot, CSS px.'),
  slotHeight: z
    .number()
    .nullable()
    .default(null)
    .describe('Its height with the snippet in it; null where it is not known.'),
  insert: z.string(),
  viewport: z.string(),
  width: z.number(),
  height: z.number(),
  ...viewShape,
  worst: level.nullable().describe('The heaviest finding seen here, of those that count.'),
  waived: z.boolean().describe('Whether one seen here is waived.'),
  fits: z
    .boolean()
    .nullable()
    .describe('Whether nothing sticks out of the slot or the page; null where that is not known.'),
  shot: shotSchema.nullable().describe('What it looked like: a PNG under its hash.'),
  harm: harmShotsSchema
    .nullable()
    .default(null)
    .describe('Where the page around is harmed: that piece of it, with the snippet and without.'),
  marks: z.array(mark).describe('The culprits on it.'),
  traffic: z.array(host),
  frames: z.array(frame),
  media: z.array(medium),
});
export type RenderReport = z.infer<typeof renderReport>;

/** As a visitor finds it at first. */
export function isAtFirst({ variant, after, condition }: RenderReport): boolean {
  return variant === 'as-is' && after === null && condition === '';
}
