import { isMap, isSeq, LineCounter, parseDocument, visit, type Document, type Node } from 'yaml';
import * as z from 'zod';
import { ToolError } from '../errors.js';
import { flatMap, mapPresent } from '../lists.js';
import { suggest, suggestFinding } from '../words/nearest.js';
import { FINDING_IDS } from '../words/finding-ids.js';
import { completeHouse, type House } from './house.js';
import { houseSchema } from './schema.js';

/** Bounds what a hostile file may blow up to by aliases. */
const MAX_ALIASES = 50;

/** The house of somebody who has no house file. */
export function getDefaultHouse(): House {
  return completeHouse(houseSchema.parse({}), null);
}

/**
 * Reads a house file's text.
 * @throws ToolError `bad-house`: file, line, key, what was found and what is allowed.
 */
export function readHouse(text: string, file: string): House {
  const lines = new LineCounter();
  const document = parseDocument(text, { lineCounter: lines, prettyErrors: false });
  const broken = document.errors[0];
  if (broken?.code === 'DUPLICATE_KEY') {
    const key = /^["']?([^"':\s]*)/.exec(text.slice(broken.pos[0]))?.[1] ?? '';
    throw badHouse(file, lines.linePos(broken.pos[0]).line, key, 'stands there twice');
  }
  if (broken) {
    throw badHouse(file, lines.linePos(broken.pos[0]).line, null, `is not YAML: ${broken.message}`);
  }
  checkKeys(document, lines, file);
  const value = toValue(document, file);
  const parsed = houseSchema.safeParse(value ?? {});
  if (!parsed.success) throw explain(parsed.error.issues[0]!, document, lines, file);
  checkNames(parsed.data, document, lines, file);
  checkViewports(parsed.data, document, lines, file);
  return completeHouse(parsed.data, file);
}

function toValue(document: Document, file: string): unknown {
  try {
    return document.toJS({ maxAliasCount: MAX_ALIASES });
  } catch {
    throw badHouse(file, 1, null, `uses more than ${MAX_ALIASES} aliases`);
  }
}

/** A key that objects have by themselves is no key of anything here. */
function checkKeys(document: Document, lines: LineCounter, file: string): void {
  visit(document, {
    Pair(_at, { key }) {
      const { value, range } = (key ?? {}) as { value?: unknown; range?: [number] };
      if (value !== '__proto__') return;
      throw badHouse(file, lines.linePos(range?.[0] ?? 0).line, '__proto__', 'is not a key here');
    },
  });
}

/** What is told of a viewport is told by its name. */
function checkViewports(
  { viewports = [] }: z.output<typeof houseSchema>,
  document: Document,
  lines: LineCounter,
  file: string,
): void {
  viewports.forEach(({ name }, i) => {
    if (viewports.findIndex((one) => one.name === name) === i) return;
    const path = ['viewports', i, 'name'];
    throw badHouse(
      file,
      getLine(document, lines, path),
      path.join('.'),
      `must be another name than those before, found "${name}"`,
    );
  });
}

/** Finding names are checked by hand: the schema cannot say which is near. */
function checkNames(
  house: z.output<typeof houseSchema>,
  document: Document,
  lines: LineCounter,
  file: string,
) {
  const named = [
    ...Object.keys(house.levels).map((id) => ({ id, path: ['levels', id] })),
    ...house.waivers.map(({ finding }, i) => ({ id: finding, path: ['waivers', i, 'finding'] })),
  ];
  for (const { id, path } of named) {
    if (FINDING_IDS.includes(id)) continue;
    const line = getLine(document, lines, path);
    throw badHouse(
      file,
      line,
      path.join('.'),
      `names the unknown finding "${id}". ${suggestFinding(id, FINDING_IDS)}`,
    );
  }
}

function explain(
  issue: z.core.$ZodIssue,
  document: Document,
  lines: LineCounter,
  file: string,
): ToolError {
  const leaves = listLeaves(issue);
  const inner = getDeepest(leaves);
  if (inner.code === 'unrecognized_keys') {
    const key = inner.keys[0]!;
    const path = [...inner.path, key];
    const words = `is not a key of ${inner.path.length ? `"${inner.path.join('.')}"` : 'the house file'}. ${suggest(key, getKeys(inner.path))}`;
    return badHouse(file, getLine(document, lines, path), path.join('.'), words);
  }
  const found = document.getIn(inner.path);
  const others = leaves.filter(({ path }) => path.join('.') === inner.path.join('.'));
  const seen = isMap(found) || isSeq(found) ? '' : `, found ${JSON.stringify(found) ?? 'nothing'}`;
  return badHouse(
    file,
    getLine(document, lines, inner.path),
    inner.path.join('.'),
    `${wanted(inner, others)}${seen}`,
  );
}

/** @param others what the other branches of a union say of the same place */
function wanted(issue: z.core.$ZodIssue, others: readonly z.core.$ZodIssue[]): string {
  const allowed = mapPresent([issue, ...others], describe);
  if (describe(issue) !== null) return `must be ${[...new Set(allowed)].join(', or ')}`;
  if (issue.code === 'invalid_key') return issue.issues[0]?.message ?? issue.message;
  if (issue.code === 'too_small' && issue.origin === 'array')
    return `must have at least ${issue.minimum} in it`;
  if (issue.code === 'too_small') return `must be at least ${issue.minimum}`;
  if (issue.code === 'too_big') return `must be at most ${issue.maximum}`;
  return issue.message;
}

/** What may stand at a place, where that can be said in a word or two. */
function describe(issue: z.core.$ZodIssue): string | null {
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
function getLine(document: Document, lines: LineCounter, path: readonly PropertyKey[]): number {
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

function badHouse(file: string, line: number, key: string | null, words: string): ToolError {
  return new ToolError(
    'bad-house',
    `${file}, line ${line}: ${key ? `\`${key}\` ` : ''}${words.replace(/\.$/, '')}.`,
  );
}
