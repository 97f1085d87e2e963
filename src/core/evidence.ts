import * as z from 'zod';
import { boxSchema } from '../facts/common.js';
import { partSchema } from '../facts/host/fact.js';
import {
  FACT_KINDS,
  forKinds,
  getEmptyFacts,
  KINDS,
  SEEN_KINDS,
  type FactKind,
  type Facts,
} from '../facts/kinds.js';
import { widths } from '../facts/widths/fact.js';
import { renderSchema } from './render.js';

export type { Box, ElementStyle, Size, Source } from '../facts/common.js';
export type { AsksFact } from '../facts/asks/fact.js';
export type { CauseFact, Target, TriedCure } from '../facts/causes/fact.js';
export type { RunScript } from '../facts/code/fact.js';
export type { ControlFact } from '../facts/controls/fact.js';
export type { CutFact } from '../facts/cuts/fact.js';
export type { DrawingFact } from '../facts/drawings/fact.js';
export type { ElementFact } from '../facts/elements/fact.js';
export { FILE_TYPES, type FileType } from '../facts/file-type.js';
export type { FrameFact } from '../facts/frames/fact.js';
export type { HandlingFact } from '../facts/handling/fact.js';
export type { Act, VisitFact, Way } from '../facts/visit/fact.js';
export type { HostPart, HostPartFact } from '../facts/host/fact.js';
export {
  CHANGING_KINDS,
  FACT_KINDS,
  FITTING_KINDS,
  getEmptyFacts,
  SEEN_KINDS,
  type FactKind,
  type Facts,
} from '../facts/kinds.js';
export type { CoveredFact } from '../facts/layers/fact.js';
export type { MediaFact } from '../facts/media/fact.js';
export type { FlashFact } from '../facts/flashing/fact.js';
export type { MotionFact } from '../facts/motions/fact.js';
export type { PageFact, PageWidth } from '../facts/page/fact.js';
export type { Cell, PaintedPart, PaintFact } from '../facts/paint/fact.js';
export type { PictureFact } from '../facts/pictures/fact.js';
export type { PolicyFact } from '../facts/policy/fact.js';
export type { ReachFact } from '../facts/reaching/fact.js';
export type { Device, Hang, Replaced, ScriptFact } from '../facts/scripts/fact.js';
export type { StoredFact } from '../facts/stored/fact.js';
export type { RefusedStyle } from '../facts/styles/fact.js';
export type { ShiftsFact } from '../facts/shifts/fact.js';
export type { SlotFact } from '../facts/slot/fact.js';
export type { TextFact } from '../facts/texts/fact.js';
export type { Refusal, RefusalKind, RequestFact } from '../facts/traffic/fact.js';
export type { TimedFact } from '../facts/times/fact.js';
export type { WorkFact } from '../facts/unrest/fact.js';
export type { Interval, Room, WideSpan, WidthSpan, WidthsFact } from '../facts/widths/fact.js';

const kindSchema = z.enum(Object.keys(KINDS) as [FactKind, ...FactKind[]]);

/**
 * Something that should have been measured and was not, or not all of it. `kept`: how much of it is
 * there all the same; null where nothing is.
 */
const gapSchema = z.object({
  kind: kindSchema,
  why: z.string(),
  seen: z.number().nullable(),
  kept: z.number().nullable(),
});
export type Gap = z.output<typeof gapSchema>;

/** No more of a page is shown, px. */
export const MOST_SHOWN = { width: 3000, height: 1600 };

/** What a render looked like: the bytes stand elsewhere, under their hash. One pixel for each CSS px. */
export const shotSchema = z.object({
  /** hex SHA-256 of the PNG. */
  hash: z.string().regex(/^[0-9a-f]{64}$/),
  /** What of the page it shows, page px. */
  region: boxSchema,
});
export type Shot = z.output<typeof shotSchema>;

/** One piece of the page, with a snippet and without. */
export const harmShotsSchema = z.object({
  with: shotSchema,
  /** null where it could not be taken. */
  without: shotSchema.nullable(),
});

/** All that was measured of one snippet in one render; where a gap stands, the facts of that kind are empty. */
export const evidenceSchema = z.object({
  render: renderSchema,
  /** Which of the render's snippets this is of, from 0. */
  of: z.int().min(0),
  gaps: z.array(gapSchema),
  /** The kinds that were looked for; left out: all. Of the others it says nothing. */
  sought: z.array(kindSchema).optional(),
  /** null where none was wanted or could be taken. */
  shot: shotSchema.nullable(),
  /** Where the page around is harmed: that part of it, with the snippet and without. */
  harm: harmShotsSchema.nullable().default(null),
  ...(forKinds((kind) => KINDS[kind].schema) as { [K in FactKind]: (typeof KINDS)[K]['schema'] }),
});

/** @see evidenceSchema */
export interface Evidence
  extends Pick<z.output<typeof evidenceSchema>, 'render' | 'of' | 'gaps' | 'shot'>, Facts {
  harm?: z.output<typeof harmShotsSchema> | null;
  sought?: FactKind[];
}

/** Gaps of kinds of which there is nothing. Without those that only add to what is said nothing is unseen. */
export function listMissing(kinds: readonly FactKind[], why: string): Gap[] {
  const seen = kinds.filter((kind) => SEEN_KINDS.includes(kind));
  return seen.map((kind) => ({ kind, why, seen: null, kept: null }));
}

const NOT_KEPT = 'it was kept by a version that did not tell of it';

/** Evidence as it was kept, with a gap for each kind of facts that it does not have: it may be of an earlier version. */
export function completeEvidence(kept: unknown): unknown {
  if (typeof kept !== 'object' || kept === null || !('gaps' in kept)) return kept;
  const { gaps } = kept;
  const missing = FACT_KINDS.filter((kind) => !(kind in kept));
  if (missing.length === 0 || !Array.isArray(gaps)) return kept;
  const facts = getEmptyFacts();
  return {
    ...kept,
    ...Object.fromEntries(missing.map((kind) => [kind, facts[kind]])),
    gaps: [...(gaps as unknown[]), ...listMissing(missing, NOT_KEPT)],
  };
}

/** The page with nothing in the slot, rendered twice: what differs between the two is unsteady. */
export const baselineSchema = z.object({
  viewport: z.string(),
  /** The wider of the two, so that an unsteady page is not put down to the snippet. */
  scrollWidth: z.number(),
  /** Whether the two agree in it. */
  steady: z.boolean(),
  /** Parts of the page, by their offset in its source. */
  parts: z.record(
    z.string(),
    partSchema.extend({
      tag: z.string(),
      id: z.string(),
      words: z.string().default(''),
      steady: z.boolean(),
      /** Its place among the parts, in the order of the tree; null where that is not the same each time, or not known. */
      rank: z.int().nullable().default(null),
      /** It stands equally far down each time. */
      stands: z.boolean().default(true),
    }),
  ),
  /** How far down it is scrolled when it has loaded, px: the farther of the two. */
  scrolled: z.number().default(0),
  /** What is set for the whole page; null for what differs from one load to the next. */
  settings: z.record(z.string(), z.string().nullable()).default({}),
  /** By what the page's own style sheets are known; null where that was not kept. */
  sheets: z.array(z.string()).nullable().default(null),
  requests: z.array(z.string()),
  /** Errors of its own code, by their words, and names of globals and browser's own that this changes. */
  errors: z.array(z.string()).default([]),
  replaced: z.array(z.string()).default([]),
  /** Where it flashes by itself, px of the page. */
  flashing: z.array(boxSchema).default([]),
  /** What it stores on the visitor's device, by the names of things stored. */
  stored: z.array(z.string()).default([]),
  /** The sum of its layout shift scores, the higher of the two. */
  jumps: z.number().default(0),
  /** At other windows: where it is wider than the window. */
  wide: widths.schema.shape.wide,
  /** Selectors of what the page's own scripts make. */
  made: z.array(z.string()),
});
export type Baseline = z.output<typeof baselineSchema>;

/** Whether anything of a kind was measured. */
export function isMeasured({ gaps }: Pick<Evidence, 'gaps'>, kind: FactKind): boolean {
  return !gaps.some((gap) => gap.kind === kind && gap.kept === null);
}
