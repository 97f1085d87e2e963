import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import * as z from 'zod';
import { ToolError } from '../core/errors.js';
import {
  baselineSchema,
  completeEvidence,
  evidenceSchema,
  type Baseline,
  type Evidence,
} from '../core/evidence.js';
import { readMarkup } from '../core/markup/markup.js';
import { getTraits } from '../core/markup/traits.js';
import { publishedSchema, type Snippet } from '../core/snippet.js';
import { markCut } from '../render/bounds/lost.js';
import { hashOf } from './hash.js';
import { parseJson } from './parse.js';

export const KEPT_LIST = 'kept.json';
/** What was said of it. */
export const RUN = 'run.json';
export const BASELINES = 'baselines.json.gz';
export const EVIDENCE = 'evidence';

/**
 * What a run is kept as. It is raised with every change of what evidence looks like: what an earlier version kept, from
 * the first on, is looked through and completed.
 */
export const KEPT_VERSION = 14;
const FIRST_VERSION = 4;
/** The first that looked at all that code can do in the first minute of a page, on the way down, and with a click. */
const WHOLE_VISIT = 9;
const LESS = 'it was kept by a version that looked at less of what code does';

/** Where the shots of a kept run are. */
export function getShotFolder(folder: string): string {
  return join(folder, 'pictures');
}

/** What a kept run has in it; the evidence stands in files of its own, one a snippet. */
const listSchema = z.object({
  schema: z
    .string()
    .regex(/^mivket-kept-\d+$/)
    .transform(readVersion)
    .pipe(z.int().min(FIRST_VERSION).max(KEPT_VERSION)),
  tool: z.string(),
  /** When it began to be rendered; left out by earlier versions. */
  startedAt: z.string().optional(),
  /** What the run was rendered from; null where it was not replayed from a recording. */
  source: z.string().nullable(),
  engines: z.array(z.object({ name: z.string(), version: z.string() })),
  /** The house, as `toPlainHouse` gives it. */
  house: z.record(z.string(), z.unknown()),
  ownPage: z.boolean(),
  slots: z.array(z.string()),
  viewports: z.array(z.string()),
  snippets: z.array(
    z.object({
      name: z.string(),
      path: z.string().nullable(),
      file: z.string().regex(/^\w+$/),
      /** hex SHA-256 of the file, as it was written. */
      hash: z.string(),
    }),
  ),
});

/** A run's list; its schema is the version that kept it. */
export type KeptList = z.output<typeof listSchema>;

function readVersion(schema: string): number {
  return Number(schema.slice(schema.lastIndexOf('-') + 1));
}

/** A snippet with the evidence that was kept of it. */
export interface KeptSnippet {
  snippet: Snippet;
  evidence: Evidence[];
}

/** @throws ToolError `bad-run`: where it is no kept run, or one of another version */
export async function readList(folder: string, shown: string): Promise<KeptList> {
  const text = await readFile(join(folder, KEPT_LIST), 'utf8').catch(
    (error: NodeJS.ErrnoException) => {
      const why = error.code === 'ENOENT' ? `has no ${KEPT_LIST}` : `(${error.code})`;
      throw new ToolError('bad-run', `${shown} is no kept run: it ${why}.`);
    },
  );
  const parsed = listSchema.safeParse(parseJson(text));
  if (parsed.success) return parsed.data;
  const path = parsed.error.issues[0]!.path.join('.');
  throw new ToolError(
    'bad-run',
    `${join(shown, KEPT_LIST)} is not of a run that this version keeps: \`${path}\` is missing or wrong.`,
  );
}

/** When a kept run began to be rendered; null where that is not known. */
export async function readStart(
  folder: string,
  { startedAt }: Pick<KeptList, 'startedAt'>,
): Promise<string | null> {
  if (startedAt !== undefined) return startedAt;
  const text = await readFile(join(folder, RUN), 'utf8').catch(() => '');
  return z.object({ startedAt: z.string() }).safeParse(parseJson(text)).data?.startedAt ?? null;
}

/** @throws ToolError `bad-run` */
export async function readBaselines(folder: string, shown: string): Promise<Map<string, Baseline>> {
  const text = unpack(await read(folder, shown, BASELINES), join(shown, BASELINES));
  const parsed = baselinesSchema.safeParse(parseJson(text));
  if (!parsed.success) throw broken(join(shown, BASELINES), parsed.error);
  return new Map(parsed.data);
}

/**
 * The evidence of a snippet, looked through where it is not what was written.
 * @throws ToolError `bad-run`
 */
export async function readEvidence(
  folder: string,
  shown: string,
  {
    schema,
    file,
    hash,
  }: Pick<KeptList, 'schema'> & Pick<KeptList['snippets'][number], 'file' | 'hash'>,
): Promise<KeptSnippet> {
  const name = join(EVIDENCE, `${file}.jsonl.gz`);
  const packed = await read(folder, shown, name);
  const asWritten = hashOf(packed) === hash && schema === KEPT_VERSION;
  const [head, ...lines] = unpack(packed, join(shown, name)).split('\n').filter(Boolean);
  const first = headSchema.safeParse(parseJson(head ?? ''));
  if (!first.success) throw broken(join(shown, name), first.error);
  const kept = lines.map((line): Evidence => {
    // As it was kept, key by key: what is compared and kept again stays the same.
    if (asWritten) return parseJson(line) as Evidence;
    const found = evidenceSchema.safeParse(completeEvidence(parseJson(line)));
    if (!found.success) throw broken(join(shown, name), found.error);
    return found.data as Evidence;
  });
  const { line, indent, slot, published, ...plain } = first.data.snippet;
  const snippet = {
    ...plain,
    ...(line !== undefined && { line }),
    ...(indent !== undefined && { indent }),
    ...(slot !== undefined && { slot }),
    ...(published !== undefined && { published }),
  };
  const { moves } = getTraits(readMarkup(snippet.text, snippet));
  const isMissing = schema < WHOLE_VISIT && moves;
  return { snippet, evidence: isMissing ? markCut(kept, LESS) : kept };
}

const headSchema = z.object({
  snippet: z.object({
    name: z.string(),
    path: z.string().nullable(),
    text: z.string(),
    line: z.int().optional(),
    indent: z.int().optional(),
    slot: z.string().optional(),
    published: publishedSchema.optional(),
  }),
});
const baselinesSchema = z.array(z.tuple([z.string(), baselineSchema]));

function broken(shown: string, { issues }: z.ZodError): ToolError {
  const path = issues[0]?.path.join('.') ?? '';
  const what = path === '' ? '' : `: \`${path}\` is missing or wrong`;
  return new ToolError('bad-run', `${shown} is broken${what}.`);
}

/** The file that a snippet's evidence is kept in, without its ending. */
export function getEvidenceName({ name, text, slot, published }: Snippet): string {
  const place = published ? JSON.stringify(published) : slot;
  const known = place === undefined ? `${name}\0${text}` : `${name}\0${text}\0${place}`;
  return hashOf(known).slice(0, 16);
}

async function read(folder: string, shown: string, name: string): Promise<Buffer> {
  return readFile(join(folder, name)).catch(({ code }: NodeJS.ErrnoException) => {
    const why = code === 'ENOENT' ? 'is missing' : `could not be read (${code})`;
    throw new ToolError('bad-run', `${join(shown, name)} ${why}.`);
  });
}

function unpack(packed: Uint8Array, shown: string): string {
  try {
    return gunzipSync(packed).toString();
  } catch {
    throw new ToolError('bad-run', `${shown} is broken.`);
  }
}
