import * as z from 'zod';
import { defineKind } from '../kind.js';

/** What was too wide in the page, and for what. Lengths in px. */
export const targetSchema = z.object({
  /** The element, by its number; null for the page as a whole. */
  element: z.int().nullable(),
  /** How it is measured: how far it reaches beyond an edge, or by how much its box is wider than a slot. */
  by: z.enum(['reach', 'width']),
  side: z.enum(['left', 'right']),
  /** The edge, page px; for a width that of the slot's content box. */
  edge: z.number(),
  /** The slot was made so narrow for it; null where it stood as it stands. */
  room: z.number().nullable(),
});
export type Target = z.output<typeof targetSchema>;

const spanSchema = z.object({ offset: z.int(), endOffset: z.int() });

/** What of the source makes a target too wide: found by taking it out. */
const causeSchema = targetSchema.extend({
  /** By how many px it is too wide. */
  before: z.number(),
  /** What lessens that when it is taken out, and by how much; what tells most first. */
  effects: z.array(spanSchema.extend({ px: z.number() })),
  /** What lessens it only together, where nothing does by itself. */
  together: z.array(spanSchema),
});
export type CauseFact = z.output<typeof causeSchema>;

const intentSchema = z.union([
  z.object({
    do: z.literal('set-style'),
    element: z.int(),
    declarations: z.record(z.string(), z.string()),
  }),
  z.object({
    do: z.literal('set-attribute'),
    element: z.int(),
    name: z.string(),
    value: z.string().nullable(),
  }),
  z.object({
    do: z.literal('wrap'),
    element: z.int(),
    declarations: z.record(z.string(), z.string()),
  }),
  z.object({ do: z.literal('remove-attribute'), element: z.int(), name: z.string() }),
  z.object({ do: z.literal('replace-text'), span: spanSchema, text: z.string() }),
]);

/** A cure that was put into the page. */
const triedSchema = z.object({
  intents: z.array(intentSchema),
  /** By how many px each target is still too wide with it. */
  left: z.array(z.number()),
  /** What else it did, that no cure may do. */
  harm: z.enum(['page', 'overflow', 'text', 'torn', 'gone', 'moved']).nullable(),
});
export type TriedCure = z.output<typeof triedSchema>;

/** What was found by trying: nothing where nothing was too wide. */
export const causes = defineKind({
  inPage: true,
  extra: true,
  schema: z.object({ targets: z.array(causeSchema), cures: z.array(triedSchema) }),
  empty: { targets: [], cures: [] },
});
