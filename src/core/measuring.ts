import * as z from 'zod';
import {
  baselineSchema,
  evidenceSchema,
  FACT_KINDS,
  type Baseline,
  type Evidence,
} from './evidence.js';
import type { House } from './house/house.js';
import { fromPlainHouse, toPlainHouse } from './house/plain.js';
import { renderSchema, VARIANTS } from './render.js';
import { publishedSchema, type Snippet } from './snippet.js';

/**
 * What is sent to whoever measures, here or on another machine, and what comes back: plain data, without a path
 * or a handle of the machine that it was made on. Files of the page are asked for by their address as they are needed.
 */

/** What all snippets of one page are measured in. */
export const settingSchema = z.object({
  /** As `toPlainHouse` gives it. */
  house: z.record(z.string(), z.unknown()),
  /** The text of the house's own page; null for the neutral one. */
  ownPage: z.string().nullable(),
  /** The published page that is looked at, in place of a host page with slots; null: there is none. */
  published: publishedSchema.nullable(),
  /** Nothing is let out but what the house serves and reroutes. */
  offline: z.boolean(),
  /** Everything is asked for again in each load. */
  cold: z.boolean(),
  /** The kinds of facts that somebody reads, by the variant they are read in. */
  wants: z.record(z.enum(VARIANTS), z.array(z.enum(FACT_KINDS))),
});

/** @see settingSchema */
export interface MeasureSetting extends Omit<z.output<typeof settingSchema>, 'house'> {
  house: House;
}

/** One snippet that is to be measured. */
export const jobSchema = z.object({
  snippet: z.object({
    name: z.string(),
    text: z.string(),
    /** It is a whole page, which stands where it is; null: a paste. */
    published: publishedSchema.nullable(),
  }),
  /** Of the page as it is; what these call for is rendered besides. */
  renders: z.array(renderSchema),
  /** The names of the checks that it is measured for. */
  checks: z.array(z.string()),
  /** Nothing is judged of it, now or later: it is only to be seen. */
  seenOnly: z.boolean().optional(),
  /** The time for it as a whole, ms; null: the usual. */
  timeLimit: z.number().nullable(),
});
export type MeasureJob = z.output<typeof jobSchema>;

/** What was measured of it, and of the page without it. What could not be is a gap in the evidence. */
export const answerSchema = z.object({
  evidence: z.array(evidenceSchema),
  baselines: z.array(z.tuple([z.string(), baselineSchema])),
});

/** @see answerSchema */
export interface MeasureAnswer {
  evidence: Evidence[];
  /** By the keys of the renders of the page without the snippet. */
  baselines: [string, Baseline][];
}

/** A setting as JSON can hold it. */
export function packSetting(setting: MeasureSetting): z.output<typeof settingSchema> {
  // Where the house was read from is of no use elsewhere.
  const house = { ...setting.house, file: null };
  return { ...setting, house: toPlainHouse(house) as Record<string, unknown> };
}

/** @throws z.ZodError where it is none */
export function unpackSetting(packed: unknown): MeasureSetting {
  const setting = settingSchema.parse(packed);
  return { ...setting, house: fromPlainHouse(setting.house) };
}

/** @throws z.ZodError where it is none */
export function unpackJob(packed: unknown): MeasureJob {
  return jobSchema.parse(packed);
}

/** @throws z.ZodError where it is none */
export function unpackAnswer(packed: unknown): MeasureAnswer {
  return answerSchema.parse(packed) as MeasureAnswer;
}

/** A job for one snippet. */
export function makeJob(
  { name, text, published }: Snippet,
  wish: Omit<MeasureJob, 'snippet'>,
): MeasureJob {
  return { snippet: { name, text, published: published ?? null }, ...wish };
}

/** The snippet of a job: where it came from is not known. */
export function getSnippet({ snippet: { published, ...rest } }: MeasureJob): Snippet {
  return { ...rest, path: null, ...(published && { published }) };
}
