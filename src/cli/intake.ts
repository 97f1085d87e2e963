import { open, realpath, stat } from 'node:fs/promises';
import { basename, relative, resolve } from 'node:path';
import type { Readable } from 'node:stream';
import { badInput, ToolError } from '../core/errors.js';
import { decodeText, getMark, LARGEST, LARGEST_DOCUMENT } from '../core/intake/decode.js';
import type { CodePiece, Taken } from '../core/intake/piece.js';
import type { Snippet } from '../core/snippet.js';
import { formatBytes } from '../core/measure/units.js';
import { explainFileFault } from './file-fault.js';
import { walkFolder } from './folder.js';

const ENDINGS = /\.(html?|txt|svg)$/i;
const PATTERN = /[*?{}[\]]/;

/** What the inputs gave: snippets in input order, and what could not be read. */
export interface Intake {
  snippets: Snippet[];
  problems: ToolError[];
  /** What was read already. */
  files: Set<string>;
  /** Whether blocks of code are taken out of HTML documents. */
  extract: boolean;
}

/**
 * Reads all inputs. A bad one among good ones is a problem to tell, and the rest goes on.
 * @throws ToolError `bad-input` where nothing at all is left to look at
 */
export async function readInputs(
  inputs: readonly string[],
  codes: readonly string[],
  cwd: string,
  stdin: Readable,
  extract = false,
): Promise<Intake> {
  const intake: Intake = { snippets: [], problems: [], files: new Set(), extract };
  for (const code of codes) await collect(intake, () => fromText('code', '--code', code));
  for (const input of inputs) {
    if (input === '-')
      await collect(intake, async () =>
        fromBytes('stdin', null, 'standard input', await readAll(stdin)),
      );
    else await readPath(intake, input, cwd);
  }
  if (intake.snippets.length > 0) {
    nameApart(intake.snippets);
    return intake;
  }
  throw (
    intake.problems[0] ??
    badInput(
      'There is nothing to audit: give an HTML, text or SVG file, a folder, the address of a page, `-`, or --code.',
    )
  );
}

async function collect(
  intake: Intake,
  read: () => Snippet | Promise<Snippet | (Snippet | ToolError)[]>,
): Promise<void> {
  try {
    for (const one of [await read()].flat())
      if (one instanceof ToolError) intake.problems.push(one);
      else intake.snippets.push(one);
  } catch (error) {
    if (!(error instanceof ToolError)) throw error;
    intake.problems.push(error);
  }
}

async function readPath(intake: Intake, input: string, cwd: string): Promise<void> {
  const path = resolve(cwd, input);
  const found = await stat(path).catch((error: NodeJS.ErrnoException) => error);
  if ('isDirectory' in found) {
    if (!found.isDirectory()) return collectFile(intake, path, cwd);
    return readFolder(intake, path, input, cwd);
  }
  // An address may have a query, whose mark is one of patterns too.
  if (/^https?:\/\//i.test(input)) return collect(intake, () => fromAddress(input));
  if (PATTERN.test(input)) return readPattern(intake, input, cwd);
  intake.problems.push(badInput(`${input} ${explainFileFault(found)}.`));
}

async function readFolder(intake: Intake, path: string, input: string, cwd: string): Promise<void> {
  const { files, problems } = await walkFolder(path, (file) => ENDINGS.test(file));
  for (const { path: at, why } of problems)
    intake.problems.push(badInput(`${relative(cwd, at) || input} ${why}.`));
  if (files.length === 0 && problems.length === 0)
    intake.problems.push(
      badInput(`The folder ${input} has no snippet in it (.html, .htm, .txt or .svg).`),
    );
  for (const file of files.sort()) await collectFile(intake, file, cwd);
}

async function readPattern(intake: Intake, input: string, cwd: string): Promise<void> {
  const { glob } = await import('tinyglobby');
  const files = await glob(input.replaceAll('\\', '/'), { cwd, absolute: true, onlyFiles: true });
  if (files.length === 0) intake.problems.push(badInput(`No file fits the pattern ${input}.`));
  for (const file of files.sort()) await collectFile(intake, file, cwd);
}

/** A file that is named twice, by whatever name, is read once. */
async function collectFile(intake: Intake, path: string, cwd: string): Promise<void> {
  const real = await realpath(path).catch(() => path);
  if (intake.files.has(real)) return;
  intake.files.add(real);
  await collect(intake, () => takeOut(path, cwd, intake.extract));
}

const DOCUMENTS: Record<string, string> = {
  md: 'a fenced block of markup',
  markdown: 'a fenced block of markup',
  csv: 'a record',
  json: 'a record',
  jsonl: 'a record',
  ndjson: 'a record',
};

/** The snippets of a file: of a document or a list all that are in it, and what is wrong with others; else the file itself. */
async function takeOut(
  path: string,
  cwd: string,
  extract: boolean,
): Promise<(Snippet | ToolError)[]> {
  const ending = /\.(\w+)$/.exec(basename(path))?.[1]?.toLowerCase() ?? '';
  const isDocument = DOCUMENTS[ending] !== undefined || (extract && /^html?$/.test(ending));
  const file = await readFile(path, cwd, isDocument ? LARGEST_DOCUMENT : LARGEST);
  if (!isDocument) return [file];
  const pieces = await readPieces(ending, file.text, file.path ?? file.name);
  if (pieces.length === 0)
    throw badInput(
      `${file.path} has not ${DOCUMENTS[ending] ?? 'a block that shows markup'} in it.`,
    );
  return pieces.map((piece, i) => (piece instanceof ToolError ? piece : toSnippet(file, piece, i)));
}

function toSnippet(file: Snippet, piece: CodePiece, i: number): Snippet | ToolError {
  const { text, name, line, indent, slot } = piece;
  const where = `${file.path}, line ${line}`;
  if (text.trim() === '') return badInput(`${where}, has no code.`);
  if (Buffer.byteLength(text) > LARGEST) return tooLarge(`${where},`, Buffer.byteLength(text));
  const place = { line, ...(indent !== undefined && { indent }) };
  const shown = name ?? `${file.name}#${i + 1}`;
  return { name: shown, path: file.path, text, ...place, ...(slot !== null && { slot }) };
}

async function readPieces(ending: string, text: string, shown: string): Promise<Taken[]> {
  if (/^(md|markdown)$/.test(ending))
    return (await import('../core/intake/markdown.js')).takeFromMarkdown(text);
  if (/^html?$/.test(ending)) return (await import('../core/intake/extract.js')).takeFromHtml(text);
  const { takeFromCsv, takeFromJson, takeFromJsonLines } = await import('../core/intake/list.js');
  if (ending === 'csv') return takeFromCsv(text, shown);
  return ending === 'json' ? takeFromJson(text, shown) : takeFromJsonLines(text, shown);
}

async function readFile(path: string, cwd: string, most: number): Promise<Snippet> {
  const shown = relative(cwd, path) || path;
  try {
    const handle = await open(path, 'r');
    try {
      const { size } = await handle.stat();
      if (size > most) throw tooLarge(shown, size, most);
      return fromBytes(basename(path), shown, shown, await handle.readFile(), most);
    } finally {
      await handle.close();
    }
  } catch (error) {
    if (error instanceof ToolError) throw error;
    throw badInput(`${shown} ${explainFileFault(error as NodeJS.ErrnoException)}.`);
  }
}

function fromBytes(
  name: string,
  path: string | null,
  shown: string,
  bytes: Buffer,
  most = LARGEST,
): Snippet {
  if (bytes.length > most) throw tooLarge(shown, bytes.length, most);
  const wide = getMark(bytes)?.startsWith('utf-16') ?? false;
  if (!wide && bytes.subarray(0, 8000).includes(0))
    throw badInput(`${shown} is not text but a binary file.`);
  const text = decodeText(bytes);
  if (text === null) throw badInput(`${shown} is not UTF-8; save it as UTF-8 and try again.`);
  return { ...fromText(name, shown, text, most), path };
}

/** A page that is published: its text is fetched when the run begins. */
function fromAddress(input: string): Snippet {
  if (!URL.canParse(input)) throw badInput(`${input} is no address of a page.`);
  const { href, host, pathname, search, username } = new URL(input);
  if (username !== '')
    throw badInput(
      `${host} comes with a name or a password: an address stands in reports, give it without.`,
    );
  const name = (host + pathname + search).replace(/\/$/, '');
  return { name, path: href, text: '', published: { address: href, headers: {} } };
}

function fromText(name: string, shown: string, text: string, most = LARGEST): Snippet {
  if (text.trim() === '') throw badInput(`${shown} is empty.`);
  if (text.length > most) throw tooLarge(shown, Buffer.byteLength(text), most);
  return { name, path: null, text };
}

/** What is too large is read to its end all the same, so that its size can be told, and not kept. */
async function readAll(stdin: Readable): Promise<Buffer> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of stdin) {
    size += (chunk as Buffer).length;
    if (size <= LARGEST) chunks.push(Buffer.from(chunk as Buffer));
  }
  if (size > LARGEST) throw tooLarge('standard input', size);
  return Buffer.concat(chunks);
}

/** Two files of one name are told apart by their paths, all else by a number. */
function nameApart(snippets: Snippet[]): void {
  const names = snippets.map(({ name }) => name);
  const taken = new Set<string>();
  snippets.forEach((snippet, i) => {
    const alike = names.filter((name) => name === names[i]).length > 1;
    if (alike && snippet.path !== null && snippet.line === undefined) snippet.name = snippet.path;
    const { name } = snippet;
    for (let n = 2; taken.has(snippet.name); n++) snippet.name = `${name}-${n}`;
    taken.add(snippet.name);
  });
}

function tooLarge(shown: string, size: number, most = LARGEST): ToolError {
  const what = most === LARGEST ? 'a snippet' : 'a document or a list of snippets';
  // What is over by a little would seem to be just as large.
  const [has, may] = [formatBytes(size), formatBytes(most)];
  const told = has === may ? `${size.toLocaleString('en')} bytes` : has;
  return badInput(`${shown} has ${told}; ${what} may have ${may} at most.`);
}
