import * as z from 'zod';
import { finding, waiver } from '../finding.js';
import { flatMap, mapPresent } from '../lists.js';
import { runSchema, type RunDocument, type SnippetReport } from '../run.js';
import { counts } from '../verdict.js';
import type { Cleared } from '../live/live.js';

const accepted = finding.pick({ id: true, key: true, level: true, brief: true });

/** A line of a ledger: a snippet that was cleared, and under which conditions. Keys are only added within a version. */
export const ledgerSchema = z.object({
  schema: z.literal('mivket-ledger-1'),
  name: z.string(),
  hash: z.string().describe('hex SHA-256 of the text, as UTF-8: another text is not cleared.'),
  text: z.string(),
  clearedAt: z.string().describe('When it was rendered (ISO 8601, UTC).'),
  by: z.string().describe('Who cleared it.'),
  tool: runSchema.shape.tool,
  engines: runSchema.shape.engines,
  house: z.object({
    file: z.string().nullable(),
    hash: z.string().describe('hex SHA-256 of all that the house lays down.'),
    holdOn: finding.shape.level,
  }),
  conditions: z.array(
    z
      .object({ slot: z.string(), insert: z.string(), viewport: z.string(), variant: z.string() })
      .describe('Where it was looked at, and how.'),
  ),
  findings: z.array(accepted).describe('What was found in it, and is no reason to hold it.'),
  waivers: z.array(accepted.extend({ waiver })).describe('What was found, and waived.'),
  hosts: z.array(z.string()).describe('Whom it contacted besides the page’s own site.'),
});
export type LedgerEntry = z.output<typeof ledgerSchema>;

/** Who cleared it, under which house. */
export interface Clearing {
  by: string;
  /** hex SHA-256 */
  houseHash: string;
}

/** An entry for each snippet of a run that is clear; a published page is none. */
export function listCleared(document: RunDocument, clearing: Clearing): LedgerEntry[] {
  return mapPresent(document.snippets, (snippet) =>
    snippet.verdict === 'clear' && snippet.published === null
      ? toEntry(snippet, document, clearing)
      : null,
  );
}

function toEntry(
  { name, hash, text, findings, renders, contacts }: SnippetReport,
  { tool, engines, house, startedAt, renderedAt }: RunDocument,
  { by, houseHash }: Clearing,
): LedgerEntry {
  return {
    schema: 'mivket-ledger-1',
    ...{ name, hash, text, by, tool, engines },
    clearedAt: renderedAt ?? startedAt,
    house: { file: house.file, hash: houseHash, holdOn: house.holdOn },
    conditions: renders.map(({ slot, insert, viewport, variant }) => ({
      ...{ slot, insert, viewport, variant },
    })),
    findings: findings.filter(counts).map(tellAccepted),
    waivers: flatMap(findings, (one) =>
      one.waiver && !counts(one) ? [{ ...tellAccepted(one), waiver: one.waiver }] : [],
    ),
    hosts: contacts.map(({ host }) => host),
  };
}

function tellAccepted({ id, key, level, brief }: SnippetReport['findings'][number]) {
  return { id, key, level, brief };
}

/** What of an entry is looked for on pages. */
export function toCleared({ name, text, hosts, findings, waivers }: LedgerEntry): Cleared {
  return { name, text, hosts, findings: [...findings, ...waivers].map(({ id }) => id) };
}
