import { execFile } from 'node:child_process';
import { copyFile, readFile, stat } from 'node:fs/promises';
import { basename, dirname, isAbsolute, resolve } from 'node:path';
import { promisify } from 'node:util';
import { badInput, ToolError } from '../core/errors.js';
import { decodeAs, getMark, readEncoded } from '../core/intake/decode.js';
import { respellHtml, respellJson } from '../core/intake/respell.js';
import type { Snippet } from '../core/snippet.js';
import { writeWhole } from './write.js';

/** A snippet that was mended, with where it came from. */
export interface MendedText {
  snippet: Pick<Snippet, 'name' | 'path' | 'text' | 'line' | 'indent'>;
  text: string;
}

/** Where what was mended goes: into copies in a folder, or into the files themselves. */
export type Destination = { folder: string } | 'in place';

/** What was written, for the reader. */
export interface Written {
  path: string;
  /** Where the file as it was is kept; null where nothing has to be. */
  original: string | null;
}

/**
 * Writes what was mended; of a document or a list only the characters of its snippets change.
 * @param all those of one file, or one that came from nowhere
 * @param cwd the folder that paths are shown from
 * @throws ToolError `bad-input` where that cannot be done to the character, `cannot-write`; nothing is changed then
 */
export async function writeMended(
  all: readonly MendedText[],
  target: Destination,
  cwd: string,
): Promise<Written> {
  const [{ snippet, text }] = all as [MendedText];
  const { path } = snippet;
  const name = path ?? `${snippet.name}.html`;
  const content = path === null ? Buffer.from(text) : await put(resolve(cwd, path), path, all);
  if (target !== 'in place') {
    const inside = isAbsolute(name) || name.startsWith('..') ? basename(name) : name;
    const copy = resolve(target.folder, inside);
    await writeWhole(copy, content);
    return { path: copy, original: null };
  }
  const file = resolve(cwd, name);
  const original = (await isKept(file)) ? null : await keepOriginal(file);
  await writeWhole(file, content);
  return { path: file, original };
}

/** The bytes of a file with mended snippets in it, in its own encoding. */
async function put(file: string, shown: string, all: readonly MendedText[]): Promise<Buffer> {
  const bytes = await readFile(file);
  const read = readEncoded(bytes);
  const encode = read && (await makeEncoder(read.encoding, bytes));
  if (!read || !encode?.(read.text)?.equals(bytes))
    throw refuse(shown, 'it is in an encoding that cannot be written; save it as UTF-8 first');
  let { text } = read;
  // From the end: places before stay where they are.
  for (const one of [...all].sort((a, b) => (b.snippet.line ?? 1) - (a.snippet.line ?? 1)))
    text = replace(text, shown, one);
  const mended = encode(text);
  if (mended === null)
    throw refuse(shown, 'its encoding does not have all letters of what is put in');
  return mended;
}

function replace(whole: string, shown: string, { snippet, text }: MendedText): string {
  const { line, indent = 0 } = snippet;
  if (line === undefined) {
    if (whole !== snippet.text) throw refuse(shown, 'it was changed meanwhile');
    return text;
  }
  const put = findSpelling(shown, indent);
  const replaced = put({ whole, line, before: snippet.text, after: text });
  if (replaced !== null) return replaced;
  throw refuse(
    shown,
    `the code of line ${line} is written there in a way of its own; put the change in by hand`,
  );
}

/** A piece of a document, with what is to be in its place. */
interface Change {
  whole: string;
  line: number;
  before: string;
  after: string;
}

/** How code is put into a kind of document; it gives null where it does not find it there. */
function findSpelling(shown: string, indent: number): (change: Change) => string | null {
  if (/\.html?$/i.test(shown))
    return ({ whole, line, before, after }) => respellHtml(whole, line, before, after);
  const asUsual = (change: Change) => putAsUsual(change, indent);
  if (!/\.jsonl?$/i.test(shown)) return asUsual;
  return (change) => respellJson(change.whole, change.before, change.after) ?? asUsual(change);
}

function putAsUsual({ whole, line, before, after }: Change, indent: number): string | null {
  for (const write of listWritings(indent)) {
    const written = write(before);
    const at = findPiece(whole, written, line);
    if (at !== null) return whole.slice(0, at) + write(after) + whole.slice(at + written.length);
  }
  return null;
}

/** How code may stand in a document or a list: as it is, indented, in a field of a CSV record (RFC 4180, 2), in a JSON string (RFC 8259, 7). */
function listWritings(indent: number): ((text: string) => string)[] {
  return [
    (text) => text.replaceAll('\n', `\n${' '.repeat(indent)}`),
    (text) => text.replaceAll('"', '""'),
    (text) => JSON.stringify(text).slice(1, -1),
  ];
}

/** Where a piece begins that does so in a line, or that there is once only; null where that is not found. */
function findPiece(whole: string, piece: string, line: number): number | null {
  let start = 0;
  for (let n = 1; n < line; n++) start = whole.indexOf('\n', start) + 1;
  const end = whole.indexOf('\n', start);
  const at = whole.indexOf(piece, start);
  if (at >= 0 && (end < 0 || at < end)) return at;
  const first = whole.indexOf(piece);
  return first >= 0 && first === whole.lastIndexOf(piece) ? first : null;
}

/**
 * Writes text as a file is written, its byte order mark too; null where that encoding does not have its letters. There is
 * none where nobody knows how to write it.
 * @param label of the encoding
 */
async function makeEncoder(
  label: string,
  like: Buffer,
): Promise<((text: string) => Buffer | null) | null> {
  const { encoding } = new TextDecoder(label);
  const mark = getMark(like) === null ? '' : '\ufeff';
  const { default: iconv } = await import('iconv-lite');
  if (!iconv.encodingExists(encoding)) return null;
  return (text) => {
    const bytes = iconv.encode(mark + text, encoding);
    return decodeAs(bytes, encoding) === text ? bytes : null;
  };
}

/** Whether version control has it as it is. */
async function isKept(file: string): Promise<boolean> {
  const ask = (...args: string[]) =>
    promisify(execFile)('git', ['-C', dirname(file), ...args, '--', basename(file)]);
  try {
    await ask('ls-files', '--error-unmatch');
    return (await ask('status', '--porcelain')).stdout === '';
  } catch {
    return false;
  }
}

async function keepOriginal(file: string): Promise<string> {
  let copy = `${file}.orig`;
  for (let n = 2; await stat(copy).catch(() => null); n++) copy = `${file}.orig-${n}`;
  await copyFile(file, copy);
  return copy;
}

function refuse(path: string, why: string): ToolError {
  return badInput(`${path} is left as it is: ${why}.`);
}
