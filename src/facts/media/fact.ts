import * as z from 'zod';
import { objectShape, sizeSchema } from '../common.js';
import { defineKind } from '../kind.js';

const medium = z.object({
  ...objectShape,
  tag: z.enum(['video', 'audio']),
  address: z.string(),
  autoplay: z.boolean(),
  /** A script called play() while it had sound. */
  asksForSound: z.boolean(),
  muted: z.boolean(),
  volume: z.number(),
  controls: z.boolean(),
  loop: z.boolean(),
  inline: z.boolean(),
  poster: z.boolean(),
  /** Its own box has a picture in the background. */
  backed: z.boolean().default(false),
  paused: z.boolean(),
  started: z.boolean(),
  inView: z.boolean(),
  /** HTMLMediaElement readyState (0 to 4) and networkState (0 to 3). */
  readyState: z.int(),
  networkState: z.int(),
  error: z.string().nullable(),
  /** Frames decoded since load; of a film that runs, these were presented. */
  frames: z.int(),
  duration: z.number().nullable(),
  /** The width of its pictures by their height; null for what has none, or of which nothing came; left out: not known. */
  ratio: z.number().nullable().optional(),
  /** Its pictures across and down, px; null for what has none, or of which nothing came. */
  pixels: sizeSchema.nullable().default(null),
  /** By how much what stands below it moves down when its file comes, px. */
  pushes: z.number().default(0),
  /** How its pictures are put into its box (CSS Images 3, object-fit); left out: not known. */
  fit: z.string().optional(),
  /** Whether the file has a sound track; null where nothing was told. */
  sound: z.boolean().nullable(),
});
export type MediaFact = z.output<typeof medium>;

export const media = defineKind({
  inPage: true,
  ofElements: true,
  files: ['film'],
  schema: z.array(medium),
  empty: [],
});
