import * as z from 'zod';
import { level } from '../finding.js';
import { flatMap } from '../lists.js';
import { nameRoom } from '../render.js';
import { pictureRow, type PictureRow } from './pictures.js';
import {
  runSchema,
  verdict,
  type RenderReport,
  type RunDocument,
  type SnippetReport,
} from '../run.js';
import { compareLevels, counts, countLevels, getWorst } from '../verdict.js';

const height = z.object({
  slot: z.string(),
  viewport: z.string(),
  height: z
    .number()
    .nullable()
    .describe('Of the slot with it, CSS px; null where it is not known.'),
});

const candidate = z.object({
  name: z.string(),
  verdict,
  counts: runSchema.shape.counts,
  fits: z
    .boolean()
    .nullable()
    .describe('Whether nothing sticks out in any window; null where that is not known.'),
  fitsFrom: z.number().nullable(),
  code: z.int().describe('Characters of the snippet itself.'),
  wire: z
    .number()
    .nullable()
    .describe('Bytes over the wire in the window in which it loads most; null: not all was seen.'),
  requests: z.int().nullable(),
  hosts: z.array(z.string()).describe('Hosts besides the page’s own site.'),
  scripts: z.int().nullable().describe('Scripts of these.'),
  stored: z.int().nullable().describe('Things stored on the device, unasked.'),
  scriptTime: z
    .number()
    .nullable()
    .default(null)
    .describe(
      'For how long code had the page’s main thread until it came to rest, ms, on this machine; null where it was not timed.',
    ),
  heights: z.array(height),
  unseen: z.array(z.string()).describe('Why not all could be seen of it.'),
});

const difference = z.object({
  id: z.string(),
  level: level.describe('The heaviest of them.'),
  counts: z.array(z.int()).describe('How many there are, candidate by candidate.'),
});

const best = z
  .array(z.string())
  .describe('The names of those; empty where there is no difference.');

/** Candidates held against each other. Keys are only added within a version of the schema. */
export const comparisonSchema = z.object({
  schema: z.literal('mivket-compare-1'),
  tool: runSchema.shape.tool,
  startedAt: z.string(),
  house: z.string().nullable().describe('The house file; null: none, a neutral page.'),
  candidates: z.array(candidate),
  findings: z.array(difference).describe('What not all have equally often, the heaviest first.'),
  common: z.array(z.string()).describe('What all have equally often.'),
  pictures: z.array(pictureRow).default([]).describe('What they look like, side by side.'),
  lighter: best,
  fitting: best,
  lessAsking: best.describe('Those that contact fewest hosts and store least.'),
});
export type Comparison = z.infer<typeof comparisonSchema>;
export type Candidate = z.infer<typeof candidate>;

/** What was seen of candidates besides what the document of their run says. */
export interface BesidesSeen {
  /** By their names, ms. */
  scriptTimes: ReadonlyMap<string, number | null>;
  pictures: PictureRow[];
}

const NOTHING_SEEN: BesidesSeen = { scriptTimes: new Map(), pictures: [] };

/** Holds the snippets of one run against each other: each is a candidate for the same place. */
export function compareCandidates(
  { tool, startedAt, house, snippets }: RunDocument,
  { scriptTimes, pictures }: BesidesSeen = NOTHING_SEEN,
): Comparison {
  const candidates = snippets.map((one) => ({
    ...toCandidate(one),
    scriptTime: scriptTimes.get(one.name) ?? null,
  }));
  const all = compareFindings(snippets);
  const isCommon = (one: Comparison['findings'][number]) => new Set(one.counts).size === 1;
  return {
    schema: 'mivket-compare-1',
    ...{ tool, startedAt, house: house.file, candidates },
    findings: all.filter((one) => !isCommon(one)),
    common: all.filter(isCommon).map(({ id }) => id),
    pictures,
    lighter: listLeast(candidates, ({ wire }) => wire),
    fitting: listFitting(candidates),
    lessAsking: listLessAsking(candidates),
  };
}

function toCandidate(report: SnippetReport): Omit<Candidate, 'scriptTime'> {
  const { name, verdict, fitsFrom, text, contacts, findings } = report;
  const renders = report.renders.filter(({ variant }) => variant === 'as-is');
  const most = (get: (render: RenderReport) => number) => Math.max(...renders.map(get), 0);
  const isSeen = (kind: string) => !report.gaps.some((gap) => gap.kind === kind);
  const isHeard = isSeen('traffic');
  return {
    ...{ name, verdict, counts: countLevels(findings), fits: joinFits(renders), fitsFrom },
    code: text.length,
    wire: isHeard ? most(({ traffic }) => addUp(traffic, ({ wire }) => wire)) : null,
    requests: isHeard ? most(({ traffic }) => addUp(traffic, ({ requests }) => requests)) : null,
    hosts: contacts.map(({ host }) => host),
    scripts: isHeard ? addUp(contacts, ({ scripts }) => scripts) : null,
    stored: isSeen('stored') ? addUp(contacts, ({ stored }) => stored) : null,
    heights: renders.map((render) => ({
      slot: nameRoom(render),
      viewport: render.viewport,
      height: render.slotHeight,
    })),
    unseen: [...new Set(report.gaps.map(({ why }) => why))],
  };
}

function addUp<T>(all: readonly T[], get: (one: T) => number): number {
  return all.reduce((sum, one) => sum + get(one), 0);
}

function joinFits(renders: readonly RenderReport[]): boolean | null {
  if (renders.some(({ fits }) => fits === false)) return false;
  return renders.length > 0 && renders.every(({ fits }) => fits) ? true : null;
}

/** Each finding that one of them has, and how often each has it. */
function compareFindings(snippets: readonly SnippetReport[]): Comparison['findings'] {
  const own = snippets.map(({ findings }) => findings.filter(counts));
  const ids = [...new Set(flatMap(own, (all) => all.map(({ id }) => id)))].sort();
  const all = ids.map((id) => {
    const found = own.map((all) => all.filter((one) => one.id === id));
    const worst = found
      .flat()
      .reduce<Comparison['findings'][number]['level'] | null>(
        (sum, one) => getWorst(sum, one.level),
        null,
      );
    return { id, level: worst!, counts: found.map((one) => one.length) };
  });
  return all.sort((a, b) => compareLevels(a.level, b.level));
}

/** Those of which there is least, of those of which it is known; none where it is the same with all of these. */
function listLeast(all: readonly Candidate[], get: (one: Candidate) => number | null): string[] {
  const known = all.filter((one) => get(one) !== null);
  const least = Math.min(...known.map((one) => get(one)!));
  const found = known.filter((one) => get(one) === least);
  return found.length < known.length ? listNames(found) : [];
}

/** Those that fit in every window; where none does, those that do in the narrowest slot. */
function listFitting(all: readonly Candidate[]): string[] {
  const whole = all.filter(({ fits }) => fits);
  if (whole.length > 0) return whole.length < all.length ? listNames(whole) : [];
  return listLeast(all, ({ fitsFrom }) => fitsFrom);
}

/** Those that nobody outdoes in either. */
function listLessAsking(all: readonly Candidate[]): string[] {
  const known = all.filter(({ requests, stored }) => requests !== null && stored !== null);
  const [hosts, stored] = [known.map((one) => one.hosts.length), known.map((one) => one.stored!)];
  const found = known.filter(
    (one) => one.hosts.length === Math.min(...hosts) && one.stored === Math.min(...stored),
  );
  return found.length < known.length ? listNames(found) : [];
}

function listNames(all: readonly Candidate[]): string[] {
  return all.map(({ name }) => name);
}
