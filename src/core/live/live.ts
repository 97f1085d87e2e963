import * as z from 'zod';
import { liveChange } from './changes.js';
import { level } from '../finding.js';
import { runSchema, verdict } from '../run.js';
import { pictureRow } from '../compare/pictures.js';

const copy = z.object({
  where: z
    .enum(['sent', 'added', 'frame'])
    .describe('In the page as it was sent, put there by code, or in the document of a frame.'),
  line: z.int().nullable().describe('Of the page as it was sent; null elsewhere.'),
  changes: z.array(liveChange),
});

const behaviour = z
  .object({
    known: z.boolean().describe('False where nobody wrote down what it did when it was cleared.'),
    newFindings: z
      .array(z.object({ id: z.string(), level, brief: z.string() }))
      .describe('Found in it where it stands, and not when it was cleared.'),
    newHosts: z.array(z.string()).describe('It contacts them now, and did not then.'),
    goneHosts: z.array(z.string()).describe('It contacted them then, and the page does not now.'),
  })
  .describe('What it does where it stands, as far as it is in the page as it was sent.');

/** How a cleared snippet stands on a page. */
export const liveState = z.enum(['as-cleared', 'altered', 'doubled', 'escaped', 'missing']);
export type LiveState = z.output<typeof liveState>;

const standing = z.object({
  name: z.string(),
  state: liveState,
  copies: z.array(copy),
  behaviour: behaviour.nullable(),
  pictures: z
    .array(pictureRow)
    .default([])
    .describe(
      'Window by window, as far as pictures were taken: as it is in the slot of the house that is nearest in width, and behind that each of its copies. Whether they look alike is null where they have not the same width.',
    ),
});
export type LiveStanding = z.output<typeof standing>;

const page = z.object({
  asked: z.string(),
  address: z.string().nullable().describe('After redirects; null where it could not be had.'),
  why: z.string().nullable().describe('Why it could not be looked at as a whole.'),
  standings: z.array(standing),
});
export type LivePage = z.output<typeof page>;

/** What became of cleared snippets where they were published. */
export const liveSchema = z.object({
  schema: z.literal('mivket-live-1'),
  tool: runSchema.shape.tool,
  startedAt: z.string(),
  verdict: verdict.describe('Clear: each is on some page, and on each as it was cleared.'),
  pages: z.array(page),
  missing: z.array(z.string()).describe('Cleared, and on none of the pages.'),
});
export type LiveDocument = z.output<typeof liveSchema>;

/** What is looked for in pages. */
export type ClearedText = Pick<Cleared, 'name' | 'text'>;

/** A snippet that was cleared; what it did then is not always known. */
export interface Cleared {
  name: string;
  text: string;
  findings: readonly string[] | null;
  hosts: readonly string[] | null;
}
