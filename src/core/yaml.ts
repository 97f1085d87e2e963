import { isMap, isSeq, LineCounter, parseDocument, visit, type Document, type Node } from 'yaml';
import * as z from 'zod';
import { ToolError, type ErrorCode } from './errors.js';
import { flatMap, mapPresent } from './lists.js';
import { countWords } from './words/list.js';
import { suggest } from './words/nearest.js';

/** A mistake in a file: where, and what is allowed there. */
export interface Complaint {
  line: number;
  key: string | null;
  words: string;
}

/** A file as it was read, with where its lines are, and by what it is held. */
export interface HandWritten {
  document: Document;
  lines: LineCounter;
  kind: FileKind<z.ZodType>;
}

/** What a kind of file holds, and what it is called. */
export interface FileKind<S extends z.ZodType> {
  schema: S;
  /** As a sentence names it: `the house file`. */
  name: string;
  /** What its mistakes are told as. */
  code: ErrorCode;
  /** What the schema cannot say. */
  check?(read: z.output<S>, source: HandWritten): Complaint[];
}

/** Bounds what a hostile file may blow up to by aliases. */
const MAX_ALIASES = 50;

/**
 * Reads the text of a file that somebody wrote by hand.
 * @throws ToolError of its kind: of each mistake file, line, key, what was found and what is allowed.
 */
export function readYaml<S extends z.ZodType>(
  text: string,
  file: string,
  kind: FileKind<S>,
): z.output<S> {
  const lines = new LineCounter();
  const document = parseDocument(text, { lineCounter: lines, prettyErrors: false });
  const source: HandWritten = { document, lines, kind };
  const refuse = (complaints: readonly Complaint[]) => toError(kind.code, file, complaints);
  const broken = findBroken(text, source) ?? findOddKey(source);
  if (broken) throw refuse([broken]);
  const value = toValue(document);
  if (value === TOO_MANY) throw refuse([{ line: 1, key: null, words: TOO_MANY }]);
  const parsed = kind.schema.safeParse(value ?? {});
  const complaints = parsed.success
    ? (kind.check?.(parsed.data, source) ?? [])
    : flatMap(parsed.error.issues, (issue) => explain(issue, source));
  if (complaints.length > 0 || !parsed.success) throw refuse(complaints);
  return parsed.data;
}

const TOO_MANY = `uses more than ${MAX_ALIASES} aliases`;

function toValue(document: Document): unknown {
  try {
    return document.toJS({ maxAliasCount: MAX_ALIASES });
  } catch {
    return TOO_MANY;
  }
}

/** What is no YAML: what stands behind it cannot be told from what follows of it. */
function findBroken(text: string, { document, lines }: HandWritten): Complaint | null {
  const [broken] = document.errors;
  if (!broken) return null;
  const { line } = lines.linePos(broken.pos[0]);
  if (broken.code !== 'DUPLICATE_KEY')
    return { line, key: null, words: `is not YAML: ${broken.message}` };
  const key = /^["']?([^"':\s]*)/.exec(text.slice(broken.pos[0]))?.[1] ?? '';
  return { line, key, words: 'stands there twice' };
}

/** A key that objects have by themselves is no key of anything here. */
function findOddKey({ document, lines }: HandWritten): Complaint | null {
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

/** Of unknown keys there may be several in one place. */
function explain(issue: z.core.$ZodIssue, source: HandWritten): Complaint[] {
  const leaves = listLeaves(issue);
  const inner = getDeepest(leaves);
  const { path } = inner;
  if (inner.code === 'unrecognized_keys') {
    const around = path.length > 0 ? `"${path.join('.')}"` : source.kind.name;
    return inner.keys.map((key) =>
      complainAt(
        source,
        [...path, key],
        `is not a key of ${around}. ${suggest(key, getKeys(source, path))}`,
      ),
    );
  }
  const found = source.document.getIn(path);
  const others = leaves.filter((one) => one.path.join('.') === path.join('.'));
  const seen = isMap(found) || isSeq(found) ? '' : `, found ${JSON.stringify(found) ?? 'nothing'}`;
  return [complainAt(source, path, `${wanted(inner, others, source)}${seen}`)];
}

/** @param others what the other branches of a union say of the same place */
function wanted(
  issue: z.core.$ZodIssue,
  others: readonly z.core.$ZodIssue[],
  source: HandWritten,
): string {
  const allowed = mapPresent([issue, ...others], (one) => explainIssue(one, source));
  if (explainIssue(issue, source) !== null) return `must be ${[...new Set(allowed)].join(', or ')}`;
  if (issue.code === 'invalid_key') return issue.issues[0]?.message ?? issue.message;
  if (issue.code === 'too_small' && issue.origin === 'array')
    return `must have at least ${issue.minimum} in it`;
  if (issue.code === 'too_small') return `must be at least ${issue.minimum}`;
  if (issue.code === 'too_big') return `must be at most ${issue.maximum}`;
  return issue.message;
}

/** What may stand at a place, where that can be said in a word or two. */
function explainIssue(issue: z.core.$ZodIssue, source: HandWritten): string | null {
  if (issue.code === 'invalid_value') {
    const { values } = issue;
    return values.length > 1 ? `one of ${values.join(', ')}` : String(values[0]);
  }
  if (issue.code !== 'invalid_type') return null;
  if (/^(array|tuple)$/.test(issue.expected)) return 'a list';
  if (issue.expected !== 'record' && issue.expected !== 'object') return `a ${issue.expected}`;
  const [first, second] = getKeys(source, issue.path);
  const such = issue.path.length > 0 && first && second ? ` such as ${first} and ${second}` : '';
  return `a group of keys${such}`;
}

/** Of a union, the branch that got furthest: its complaint is the one that helps. */
function getDeepest(leaves: readonly z.core.$ZodIssue[]): z.core.$ZodIssue {
  const depth = (inner: z.core.$ZodIssue) =>
    inner.path.length * 2 + (inner.code === 'unrecognized_keys' ? 1 : 0);
  return [...leaves].sort((a, b) => depth(b) - depth(a))[0]!;
}

/** What all the branches of a union complainAt of, and those of unions in it. */
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

const described = new Map<z.ZodType, Described>();

/** The keys that may stand at a path, by the JSON Schema of the file. */
function getKeys({ kind: { schema } }: HandWritten, path: readonly PropertyKey[]): string[] {
  const known =
    described.get(schema) ??
    (z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }) as Described);
  described.set(schema, known);
  let schemas = [known];
  for (const step of path) schemas = flatMap(schemas, (one) => descend(one, String(step)));
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
function getLine({ document, lines }: HandWritten, path: readonly PropertyKey[]): number {
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

export function complainAt(
  source: HandWritten,
  path: readonly PropertyKey[],
  words: string,
): Complaint {
  return { line: getLine(source, path), key: path.join('.'), words };
}

/** So many mistakes are told at once. */
const MOST = 20;

/** A line for each mistake, in the order of the file. */
function toError(code: ErrorCode, file: string, complaints: readonly Complaint[]): ToolError {
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
  return new ToolError(code, lines.join('\n'));
}
