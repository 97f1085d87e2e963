import { isMap, isSeq, LineCounter, parseDocument, visit, type Document, type Node } from 'yaml';
import * as z from 'zod';
import { ToolError } from '../errors.js';
import { flatMap, mapPresent } from '../lists.js';
import { countWords } from '../words/list.js';
import { suggest, suggestFinding } from '../words/nearest.js';
import { FINDING_IDS } from '../words/finding-ids.js';
import { completeHouse, type House } from './house.js';
import { houseSchema } from './schema.js';

/** A mistake in a house file: where, and what is allowed there. */
interface Complaint {
  line: number;
  key: string | null;
  words: string;
}

/** A house file as it was read, with where its lines are. */
interface Source {
  document: Document;
  lines: LineCounter;
}

/** Bounds what a hostile file may blow up to by aliases. */
const MAX_ALIASES = 50;

/** The house of somebody who has no house file. */
export function getDefaultHouse(): House {
  return completeHouse(houseSchema.parse({}), null);
}

/**
 * Reads a house file's text.
 * @throws ToolError `bad-house`: of each mistake file, line, key, what was found and what is allowed.
 */
export function readHouse(text: string, file: string): House {
  const lines = new LineCounter();
  const document = parseDocument(text, { lineCounter: lines, prettyErrors: false });
  const source = { document, lines };
  const broken = findBroken(text, source) ?? findOddKey(source);
  if (broken) throw badHouse(file, [broken]);
  const parsed = houseSchema.safeParse(toValue(document, file) ?? {});
  const complaints = parsed.success
    ? [...checkNames(parsed.data, source), ...checkViewports(parsed.data, source)]
    : flatMap(parsed.error.issues, (issue) => explain(issue, source));
  if (complaints.length > 0 || !parsed.success) throw badHouse(file, complaints);
  return completeHouse(parsed.data, file);
}

/** What is no YAML: what stands behind it cannot be told from what follows of it. */
function findBroken(text: string, { document, lines }: Source): Complaint | null {
  const [broken] = document.errors;
  if (!broken) return null;
  const { line } = lines.linePos(broken.pos[0]);
  if (broken.code !== 'DUPLICATE_KEY')
    return { line, key: null, words: `is not YAML: ${broken.message}` };
  const key = /^["']?([^"':\s]*)/.exec(text.slice(broken.pos[0]))?.[1] ?? '';
  return { line, key, words: 'stands there twice' };
}

function toValue(document: Document, file: string): unknown {
  try {
    return document.toJS({ maxAliasCount: MAX_ALIASES });
  } catch {
    const words = `uses more than ${MAX_ALIASES} aliases`;
    throw badHouse(file, [{ line: 1, key: null, words }]);
  }
}

/** A key that objects have by themselves is no key of anything here. */
function findOddKey({ document, lines }: Source): Complaint | null {
  let found: Complaint | null = null;
  visit(document, {
    Pair(_at, { key }) {
      const { value, range } = (key ?? {}) as { value?: unknown; range?: [number] };
      if (value !== '__proto__') return undefined;
      const { line } = lines.linePos(range?.[0] ?? 0);
      found = { line, key: '__proto__', words: 'is not a key here' };
      return visit.BREAK;
    },
  });
  return found;
}

/** What is told of a viewport is told by its name. */
function checkViewports(
  { viewports = [] }: z.output<typeof houseSchema>,
  source: Source,
): Complaint[] {
  return flatMap(viewports, ({ name }, i) => {
    if (viewports.findIndex((one) => one.name === name) === i) return [];
    const words = `must be another name than those before, found "${name}"`;
    return [complain(source, ['viewports', i, 'name'], words)];
  });
}

/** Finding names are checked by hand: the schema cannot say which is near. */
function checkNames(house: z.output<typeof houseSchema>, source: Source): Complaint[] {
  const named = [
    ...Object.keys(house.levels).map((id) => ({ id, path: ['levels', id] })),
    ...house.waivers.map(({ finding }, i) => ({ id: finding, path: ['waivers', i, 'finding'] })),
  ];
  return named
    .filter(({ id }) => !FINDING_IDS.includes(id))
    .map(({ id, path }) => {
      const words = `names the unknown finding "${id}". ${suggestFinding(id, FINDING_IDS)}`;
      return complain(source, path, words);
    });
}

/** Of unknown keys there may be several in one place. */
function explain(issue: z.core.$ZodIssue, source: Source): Complaint[] {
  const leaves = listLeaves(issue);
  const inner = getDeepest(leaves);
  const { path } = inner;
  if (inner.code === 'unrecognized_keys') {
    const around = path.length > 0 ? `"${path.join('.')}"` : 'the house file';
    return inner.keys.map((key) =>
      complain(source, [...path, key], `is not a key of ${around}. ${suggest(key, getKeys(path))}`),
    );
  }
  const found = source.document.getIn(path);
  const others = leaves.filter((one) => one.path.join('.') === path.join('.'));
  const seen = isMap(found) || isSeq(found) ? '' : `, found ${JSON.stringify(found) ?? 'nothing'}`;
  return [complain(source, path, `${wanted(inner, others)}${seen}`)];
}

/** @param others what the other branches of a union say of the same place */
function wanted(issue: z.core.$ZodIssue, others: readonly z.core.$ZodIssue[]): string {
  const allowed = mapPresent([issue, ...others], explainIssue);
  if (explainIssue(issue) !== null) return `must be ${[...new Set(allowed)].join(', or ')}`;
  if (issue.code === 'invalid_key') return issue.issues[0]?.message ?? issue.message;
  if (issue.code === 'too_small' && issue.origin === 'array')
    return `must have at least ${issue.minimum} in it`;
  if (issue.code === 'too_small') return `must be at least ${issue.minimum}`;
  if (issue.code === 'too_big') return `must be at most ${issue.maximum}`;
  return issue.message;
}

/** What may stand at a place, where that can be said in a word or two. */
function explainIssue(issue: z.core.$ZodIssue): string | null {
  if (issue.code === 'invalid_value') {
    const { values } = issue;
    return values.length > 1 ? `one of ${values.join(', ')}` : String(values[0]);
  }
  if (issue.code !== 'invalid_type') return null;
  if (/^(array|tuple)$/.test(issue.expected)) return 'a list';
  if (issue.expected !== 'record' && issue.expected !== 'object') return `a ${issue.expected}`;
  const [first, second] = getKeys(issue.path);
  const such = issue.path.length > 0 && first && second ? ` such as ${first} and ${second}` : '';
  return `a group of keys${such}`;
}

/** Of a union, the branch that got furthest: its complaint is the one that helps. */
function getDeepest(leaves: readonly z.core.$ZodIssue[]): z.core.$ZodIssue {
  const depth = (inner: z.core.$ZodIssue) =>
    inner.path.length * 2 + (inner.code === 'unrecognized_keys' ? 1 : 0);
  return [...leaves].sort((a, b) => depth(b) - depth(a))[0]!;
}

/** What all the branches of a union complain of, and those of unions in it. */
function listLeaves(issue: z.core.$ZodIssue): z.core.$ZodIssue[] {
  const inner = issue.code === 'invalid_union' ? issue.errors.flat() : [];
  return inner.length === 0
    ? [issue]
    : flatMap(inner, (one) => listLeaves({ ...one, path: [...issue.path, ...one.path] }));
}

/** As much of a JSON Schema as is walked here. */
interface Described {
  properties?: Record<string, Described>;
  additionalProperties?: Described | boolean;
  items?: Described;
  anyOf?: Described[];
}

let described: Described | null = null;

/** The keys that may stand at a path, by the JSON Schema that ships. */
function getKeys(path: readonly PropertyKey[]): string[] {
  described ??= z.toJSONSchema(houseSchema, { io: 'input', unrepresentable: 'any' }) as Described;
  let schemas = [described];
  for (const step of path) schemas = flatMap(schemas, (schema) => descend(schema, String(step)));
  const keys = flatMap(flatMap(schemas, listBranches), ({ properties = {} }) =>
    Object.keys(properties),
  );
  return [...new Set(keys)];
}

function descend(schema: Described, step: string): Described[] {
  return flatMap(listBranches(schema), ({ properties, additionalProperties, items }) => {
    const inner = properties?.[step] ?? items ?? additionalProperties;
    return typeof inner === 'object' ? [inner] : [];
  });
}

function listBranches(schema: Described): Described[] {
  return schema.anyOf ? flatMap(schema.anyOf, listBranches) : [schema];
}

/** The line of a key, or of the nearest thing around it that is there. */
function getLine({ document, lines }: Source, path: readonly PropertyKey[]): number {
  for (let depth = path.length; depth > 0; depth--) {
    const parent = document.getIn(path.slice(0, depth - 1), true);
    const key = path[depth - 1];
    const pair = isMap(parent)
      ? parent.items.find(
          (item) => String((item.key as { value?: unknown })?.value) === String(key),
        )
      : undefined;
    const node = (pair?.key ?? (isSeq(parent) ? parent.items[Number(key)] : undefined)) as
      Node | undefined;
    if (node?.range) return lines.linePos(node.range[0]).line;
  }
  return 1;
}

function complain(source: Source, path: readonly PropertyKey[], words: string): Complaint {
  return { line: getLine(source, path), key: path.join('.'), words };
}

/** So many mistakes are told at once. */
const MOST = 20;

/** A line for each mistake, in the order of the file. */
function badHouse(file: string, complaints: readonly Complaint[]): ToolError {
  const told = [...complaints]
    .sort((a, b) => a.line - b.line)
    .map(
      ({ line, key, words }) =>
        `${file}, line ${line}: ${key ? `\`${key}\` ` : ''}${words.replace(/\.$/, '')}.`,
    )
    .map((line) => line.replace(/\s*[\r\n]+\s*/g, ' '));
  const rest = told.length - MOST;
  const lines =
    rest > 0 ? [...told.slice(0, MOST), `And ${countWords(rest, 'more mistake')}.`] : told;
  return new ToolError('bad-house', lines.join('\n'));
}
