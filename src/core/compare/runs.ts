import * as z from 'zod';
import { finding } from '../finding.js';
import { flatMap, mapPresent } from '../lists.js';
import { runSchema, verdict, type Finding, type RunDocument, type SnippetReport } from '../run.js';
import { pictureRow, type PictureRow } from './pictures.js';
import { compareLevels } from '../verdict.js';

const told = finding.pick({ id: true, key: true, level: true, brief: true, message: true });

const run = z.object({
  name: z.string(),
  startedAt: z.string().nullable().describe('When it was rendered.'),
  verdict,
  snippets: z.int(),
});

const changed = z.object({
  name: z.string(),
  before: verdict,
  after: verdict,
  rewritten: z.boolean().describe('Its text is another.'),
  new: z.array(told),
  gone: z.array(told),
  heavier: z.array(told).describe('In both, of a heavier level in the second.'),
  lighter: z.array(told),
  unseen: z.array(z.string()).describe('Why not all could be seen in the second.'),
  pictures: z
    .array(pictureRow)
    .default([])
    .describe(
      'Windows in which it looks otherwise, before and after: where both runs have pictures.',
    ),
});

/** Two runs held against each other. Keys are only added within a version of the schema. */
export const runComparisonSchema = z.object({
  schema: z.literal('mivket-compare-runs-1'),
  tool: runSchema.shape.tool,
  before: run,
  after: run,
  new: z.array(z.object({ name: z.string(), verdict })).describe('Snippets of the second alone.'),
  gone: z.array(z.string()).describe('Snippets of the first alone.'),
  changed: z.array(changed),
  same: z.int().describe('Snippets of which the same is said.'),
});
export type RunComparison = z.infer<typeof runComparisonSchema>;
export type ChangedSnippet = z.infer<typeof changed>;
type Told = z.infer<typeof told>;

/** A run, as it is called. */
export interface NamedRun {
  name: string;
  document: RunDocument;
}

/**
 * Holds a run against one before it, snippet by snippet by their names, and finding by finding by their keys.
 * @param looks what looks otherwise, by the names of snippets
 */
export function compareRuns(
  before: NamedRun,
  after: NamedRun,
  looks: ReadonlyMap<string, PictureRow[]> = new Map(),
): RunComparison {
  const old = new Map(before.document.snippets.map((one) => [one.name, one]));
  const now = new Map(after.document.snippets.map((one) => [one.name, one]));
  const pairs = mapPresent(now.values(), (one) => {
    const earlier = old.get(one.name);
    const pictures = looks.get(one.name) ?? [];
    return earlier ? { ...compareReports(earlier, one), pictures } : null;
  });
  const changed = pairs.filter(isChanged);
  return {
    schema: 'mivket-compare-runs-1',
    tool: after.document.tool,
    before: tellRun(before),
    after: tellRun(after),
    new: [...now.values()]
      .filter(({ name }) => !old.has(name))
      .map(({ name, verdict }) => ({ name, verdict })),
    gone: [...old.keys()].filter((name) => !now.has(name)),
    changed,
    same: pairs.length - changed.length,
  };
}

function tellRun({ name, document: { renderedAt, verdict, snippets } }: NamedRun) {
  return { name, startedAt: renderedAt, verdict, snippets: snippets.length };
}

function compareReports(
  before: SnippetReport,
  after: SnippetReport,
): Omit<ChangedSnippet, 'pictures'> {
  const old = new Map(before.findings.map((one) => [one.key, one]));
  const now = new Map(after.findings.map((one) => [one.key, one]));
  const moved = (heavier: boolean) =>
    flatMap(after.findings, (one) => {
      const earlier = old.get(one.key);
      const by = earlier ? compareLevels(one.level, earlier.level) : 0;
      return (heavier ? by < 0 : by > 0) ? [tellFinding(one)] : [];
    });
  return {
    ...{ name: after.name, before: before.verdict, after: after.verdict },
    rewritten: before.hash !== after.hash,
    new: after.findings.filter(({ key }) => !old.has(key)).map(tellFinding),
    gone: before.findings.filter(({ key }) => !now.has(key)).map(tellFinding),
    heavier: moved(true),
    lighter: moved(false),
    unseen: [...new Set(after.gaps.map(({ why }) => why))],
  };
}

function isChanged(one: ChangedSnippet): boolean {
  const lists = [one.new, one.gone, one.heavier, one.lighter, one.pictures];
  return one.before !== one.after || one.rewritten || lists.some((list) => list.length > 0);
}

function tellFinding({ id, key, level, brief, message }: Finding): Told {
  return { id, key, level, brief, message };
}
