import * as z from 'zod';
import { pictureRow } from '../compare/pictures.js';
import { finding } from '../finding.js';
import { runSchema, verdict } from '../run.js';

const takenBack = z.object({
  findings: z.array(finding).describe('What the change was to cure.'),
  why: z.string().describe('Why it is no cure.'),
});

const mendedSnippet = z.object({
  name: z.string(),
  path: z.string().nullable(),
  before: verdict,
  after: verdict,
  cured: z.array(finding).describe('Seen before, and not after; places are those of before.'),
  takenBack: z.array(takenBack).describe('Changes that were made, looked at, and taken back.'),
  left: z.array(finding).describe('What is still to be found after; places are those of after.'),
  unseen: z.array(z.string()).describe('Why not all could be seen after.'),
  text: z.string().describe('The mended snippet: as it was given, where nothing was changed.'),
  patch: z.string().nullable().describe('The change as a unified diff; null where there is none.'),
  pictures: z
    .array(pictureRow)
    .default([])
    .describe('What it looks like before and after, where it was changed.'),
});

/** What a mending came to. Keys are only added within a version of the schema. */
export const mendSchema = z.object({
  schema: z.literal('mivket-mend-1'),
  tool: runSchema.shape.tool,
  startedAt: z.string(),
  verdict: verdict.describe('Of all snippets, after.'),
  snippets: z.array(mendedSnippet),
});

export type MendDocument = z.infer<typeof mendSchema>;
