import * as z from 'zod';
import { boxSchema } from '../common.js';
import { defineKind } from '../kind.js';

export const partSchema = z.object({
  box: boxSchema,
  shown: z.boolean(),
  style: z.string(),
  /** Neither a style nor `inert` keeps clicks from it. */
  clickable: z.boolean().default(true),
  /** What it tells a reader itself, and where it leads: two that are alike are the same; '' for nothing. */
  says: z.string().default(''),
  leads: z.string().default(''),
});
/** How a part of the host page looks. */
export type HostPart = z.output<typeof partSchema>;

/** A part of the host page that differs from the page without the snippet. */
const difference = z.object({
  offset: z.int(),
  tag: z.string(),
  /** Its first words, where people know it by them; '' for all else. */
  words: z.string().default(''),
  /** Selectors of the snippet's that it fits, by their offsets. */
  fits: z.array(z.int()).default([]),
  /** It stands further down than the slot's room explains. */
  displaced: z.boolean().default(false),
  without: partSchema.nullable(),
  with: partSchema.nullable(),
});
export type HostPartFact = z.output<typeof difference>;

export const host = defineKind({
  inPage: true,
  layout: true,
  ofPage: true,
  schema: z.array(difference),
  empty: [],
});
