import type { ObjectReader } from '../render/in-page/object-reader.js';
import { readControl } from './controls/read.js';
import { readCut } from './cuts/read.js';
import { readDrawing } from './drawings/read.js';
import { readFrame } from './frames/read.js';
import type { FactKind } from './kinds.js';
import { readMedium } from './media/read.js';
import { readMotions } from './motions/read.js';
import { readPicture } from './pictures/read.js';
import { readPolicy } from './policy/read.js';
import { readJumps } from './shifts/read.js';
import { readText } from './texts/read.js';

/** What is read in the page of elements one by one, in this order. */
export const OBJECT_READERS = {
  frames: readFrame,
  media: readMedium,
  pictures: readPicture,
  drawings: readDrawing,
  controls: readControl,
  texts: readText,
  cuts: readCut,
} satisfies { [K in FactKind]?: ObjectReader<unknown> };

/** What is read in the page of all of it. */
export const PAGE_READERS = {
  shifts: readJumps,
  policy: readPolicy,
  motions: readMotions,
} satisfies { [K in FactKind]?: () => unknown[] };

export const OBJECT_KINDS = Object.keys(OBJECT_READERS) as (keyof typeof OBJECT_READERS)[];
export const PAGE_KINDS = Object.keys(PAGE_READERS) as (keyof typeof PAGE_READERS)[];

/** What they give, by kind. */
export type RawFacts = {
  [K in keyof typeof OBJECT_READERS]: NonNullable<ReturnType<(typeof OBJECT_READERS)[K]['read']>>[];
} & { [K in keyof typeof PAGE_READERS]: ReturnType<(typeof PAGE_READERS)[K]> };
