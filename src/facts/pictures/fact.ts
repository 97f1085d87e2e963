import * as z from 'zod';
import { objectShape } from '../common.js';
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
