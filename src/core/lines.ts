import * as z from 'zod';
import { runSchema } from './run.js';

export const LINE_SCHEMA = 'mivket-line-1';

const { notJudged, snippets } = runSchema.shape;
const schema = z.literal(LINE_SCHEMA);

const snippetLine = snippets.element.extend({ schema, type: z.literal('snippet'), notJudged });
const runLine = runSchema
  .omit({ notJudged: true })
  .extend({ schema, type: z.literal('run'), snippets: z.int().describe('How many there are.') });

/** A line of a run in JSON Lines: a snippet as soon as it is judged, and at the end the run. */
export const lineSchema = z.discriminatedUnion('type', [snippetLine, runLine]);

export type SnippetLine = z.infer<typeof snippetLine>;
export type RunLine = z.infer<typeof runLine>;
