import * as z from 'zod';
import { runSchema, verdict } from '../run.js';
import type { Snippet } from '../snippet.js';
import type { LedgerEntry } from './entry.js';

const held = z.object({
  name: z.string(),
  path: z.string().nullable(),
  state: z.enum(['cleared', 'altered', 'never-cleared']),
  clearedAt: z.string().nullable(),
  by: z.string().nullable(),
  before: z.string().nullable().describe('The text that was cleared, where this is another.'),
  text: z.string(),
});
export type HeldSnippet = z.output<typeof held>;

/** Snippets held against a ledger. */
export const heldSchema = z.object({
  schema: z.literal('mivket-cleared-1'),
  tool: runSchema.shape.tool,
  verdict: verdict.describe('Clear: each was cleared as it is.'),
  snippets: z.array(held),
});
export type HeldDocument = z.output<typeof heldSchema>;

/** Which snippets were cleared as they are: by their text, whatever they were called; altered is what has a name that was cleared. */
export function holdAgainst(
  snippets: readonly Snippet[],
  entries: readonly LedgerEntry[],
): HeldSnippet[] {
  return snippets.map(({ name, path, text }) => {
    const same = entries.find((one) => one.text === text);
    const entry = same ?? entries.find((one) => one.name === name);
    const otherwise = entry ? 'altered' : 'never-cleared';
    return {
      ...{ name, path, text, state: same ? 'cleared' : otherwise },
      ...{ clearedAt: entry?.clearedAt ?? null, by: entry?.by ?? null },
      before: same ? null : (entry?.text ?? null),
    };
  });
}
