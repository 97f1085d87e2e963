import * as z from 'zod';
import { objectShape, sizeSchema } from '../common.js';
import { defineKind } from '../kind.js';

const picture = z.object({
  ...objectShape,
  tag: z.string(),
  /** Hidden from assistive technology by its markup, or marked as decoration. */
  ignored: z.boolean(),
  /** Its file has come; true for what has no file. */
  loaded: z.boolean(),
  /** Where its file is, as the browser chose it; '' for what has no file. */
  address: z.string().default(''),
  /** How many px its file has, across and down; null where that is not known, or it has no file. */
  pixels: sizeSchema.nullable().default(null),
  /** The box that it is drawn into, as it shows, CSS px; null where there is none. */
  drawn: sizeSchema.nullable().default(null),
  /** How it is put into that (CSS Images 3, object-fit), and whether its px are to show as such (image-rendering). */
  fit: z.string().default('fill'),
  pixelated: z.boolean().default(false),
  /** It waits until somebody comes near. */
  lazy: z.boolean().default(false),
  /** By how much what stands below it moves down when its file comes, px. */
  pushes: z.number().default(0),
  /** The text alternative by the accessible-name computation; '' where it is empty, null where nothing gives one. */
  name: z.string().nullable(),
});
export type PictureFact = z.output<typeof picture>;

export const pictures = defineKind({
  inPage: true,
  ofElements: true,
  files: ['picture'],
  schema: z.array(picture),
  empty: [],
});
