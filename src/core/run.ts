import { z } from 'zod';

const span = { offset: z.int(), endOffset: z.int() };
const level = z.enum(['blocker', 'concern', 'advice']);
const verdict = z.enum(['clear', 'hold', 'unsure']);
const measured = z.record(z.string(), z.union([z.string(), z.number(), z.boolean(), z.null()]));

const seen = z.object({
  slot: z.string(),
  insert: z.string(),
  viewport: z.string(),
  width: z.number(),
  density: z.number(),
  scheme: z.string(),
  engine: z.string(),
  variant: z.string(),
  measured,
});

const waiver = z.object({
  reason: z.string(),
  until: z.string(),
  by: z.string().nullable(),
  expired: z.boolean(),
});

const finding = z.object({
  id: z.string(),
  level,
  message: z.string().describe('What is wrong.'),
  notice: z.string().describe('What a visitor notices.'),
  cure: z.string().describe('What to change.'),
  standard: z.string().nullable(),
  confirmed: z.boolean().describe('False when only the markup was read.'),
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
  ranges: z.array(z.object({ from: z.number(), to: z.number(), near: z.boolean() })),
  mend: z.array(z.object({ ...span, text: z.string() })).nullable(),
  waiver: waiver.nullable(),
});

const notJudged = z.object({ id: z.string(), why: z.string(), snippet: z.string() });

const gap = z.object({
  kind: z.string(),
  why: z.string(),
  seen: z.number().nullable(),
  kept: z.number().nullable(),
  slot: z.string(),
  viewport: z.string(),
});

const render = z.object({
  slot: z.string(),
  slotWidth: z.number().nullable().describe('The content width of the slot, CSS px.'),
  insert: z.string(),
  viewport: z.string(),
  width: z.number(),
  height: z.number(),
  density: z.number(),
  scheme: z.string(),
  engine: z.string(),
  variant: z.string(),
  worst: level.nullable().describe('The heaviest finding seen here.'),
});

const snippet = z.object({
  name: z.string(),
  path: z.string().nullable(),
  verdict,
  fitsFrom: z
    .number()
    .nullable()
    .describe('The narrowest slot width, px, from which nothing sticks out; null when unknown.'),
  renders: z.array(render),
  findings: z.array(finding),
  gaps: z.array(gap),
});

const counts = z.object({ blocker: z.int(), concern: z.int(), advice: z.int() });

/** The run document: the single source of its types and of the JSON Schema that ships. */
export const runSchema = z.object({
  schema: z.literal('mivket-run-1'),
  tool: z.object({ name: z.string(), version: z.string() }),
  startedAt: z.string(),
  durationMs: z.number(),
  engines: z.array(z.object({ name: z.string(), version: z.string() })),
  verdict,
  counts,
  notJudged: z.array(notJudged),
  snippets: z.array(snippet),
});

export type RunDocument = z.infer<typeof runSchema>;
export type SnippetReport = z.infer<typeof snippet>;
export type Finding = z.infer<typeof finding>;
export type NotJudged = z.infer<typeof notJudged>;
export type Verdict = z.infer<typeof verdict>;
export type Counts = z.infer<typeof counts>;
