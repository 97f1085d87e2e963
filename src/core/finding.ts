import * as z from 'zod';

export const span = { offset: z.int(), endOffset: z.int() };
export const level = z.enum(['blocker', 'concern', 'advice']);
const measured = z.record(z.string(), z.union([z.string(), z.number(), z.boolean(), z.null()]));

/** How a window was looked at. */
export const viewShape = {
  density: z.number(),
  scheme: z.string(),
  condition: z
    .string()
    .default('')
    .describe('What is unusual about the window, in words; empty for one of the house’s.'),
  engine: z.string(),
  variant: z.string(),
  after: z
    .number()
    .nullable()
    .describe('Within how many seconds after the page had come to rest; null: at rest.'),
  scrolled: z
    .number()
    .nullable()
    .describe('Scrolled down by so much then, CSS px; null: not at all.'),
};

const seen = z.object({
  slot: z.string(),
  insert: z.string(),
  viewport: z.string(),
  width: z.number(),
  ...viewShape,
  measured,
  what: z
    .string()
    .describe('What was measured, in words, times left out; empty where nothing needs saying.'),
});

export const waiver = z.object({
  snippet: z.string().nullable().default(null).describe('What it was granted; null: all.'),
  piece: z
    .string()
    .nullable()
    .default(null)
    .describe('The piece of source or the address that it is about; null: whatever it is.'),
  reason: z.string(),
  until: z.string(),
  by: z.string().nullable(),
  expired: z.boolean(),
});

const edits = z.array(z.object({ ...span, text: z.string() }));

const asked = z.object({
  question: z.string(),
  takes: z.enum(['text', 'address']),
  element: z.int().describe('The offset of the tag that the answer is written on.'),
  attribute: z.string().describe('The attribute that the answer is the value of.'),
  decoration: z
    .object({ name: z.string(), value: z.string() })
    .nullable()
    .describe('What is set instead where it says nothing to visitors; null where that cannot be.'),
});

export const finding = z.object({
  id: z.string(),
  key: z
    .string()
    .describe(
      'Known by this between runs of the snippet, also where other code is put in before it.',
    ),
  level,
  cause: z
    .int()
    .describe(
      'The number of its cause within the snippet: the same for findings that one change cures.',
    ),
  brief: z.string().describe('What is wrong, in a few words.'),
  message: z.string().describe('What is wrong.'),
  notice: z.string().describe('What a visitor notices.'),
  cure: z.string().describe('What to change.'),
  standard: z.string().nullable(),
  confirmed: z
    .boolean()
    .describe(
      'False when only the markup was read of what a render decides, or it did not settle it.',
    ),
  where: z.object({
    line: z.int(),
    column: z.int(),
    endLine: z.int(),
    endColumn: z.int(),
    ...span,
    made: z.string().optional().describe('For what a script made: a selector.'),
  }),
  excerpt: z.string(),
  seen: z.array(seen),
  ranges: z.array(
    z.object({
      ...{ from: z.number(), to: z.number(), near: z.boolean() },
      slot: z.string().default('').describe('The slot in which it is so; empty: in all.'),
    }),
  ),
  mend: edits.nullable().describe('What cures it, and it alone.'),
  ask: asked
    .nullable()
    .default(null)
    .describe('What a person has to say for it to be cured; null where that is not what it takes.'),
  waiver: waiver.nullable(),
});

export const cause = z.object({
  number: z.int().describe('From 1; what is alike at several places has numbers in a row.'),
  mend: edits
    .nullable()
    .describe('One change for all of its findings; null where none is certain.'),
  cures: z.array(z.string()).describe('The findings that the change cures.'),
});

/** A defect as the run document has it. */
export type Finding = z.infer<typeof finding>;
export type Cause = z.infer<typeof cause>;
