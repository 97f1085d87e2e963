import { open, readdir, realpath, stat } from 'node:fs/promises';
import { basename, join, relative, resolve } from 'node:path';
import type { Readable } from 'node:stream';
import { ToolError } from '../core/errors.js';
import { decodeText, getMark, LARGEST } from '../core/intake/decode.js';
import type { Piece } from '../core/intake/piece.js';
import type { Snippet } from '../core/snippet.js';
import { formatBytes } from '../core/measure/units.js';

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
    new ToolError(
      'bad-input',
      'There is nothing to audit: give an HTML, text or SVG file, a folder, the address of a page, `-`, or --code.',
    )
  );
}

async function collect(
  intake: Intake,
  read: () => Snippet | Snippet[] | Promise<Snippet | Snippet[]>,
): Promise<void> {
  try {
    intake.snippets.push(...[await read()].flat());
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
  intake.problems.push(bad(`${input} ${explain(found)}.`));
}

async function readFolder(intake: Intake, path: string, input: string, cwd: string): Promise<void> {
  const entries = await readdir(path, { recursive: true, withFileTypes: true }).catch(
    (error: NodeJS.ErrnoException) => error,
  );
  if (!Array.isArray(entries))
    return void intake.problems.push(bad(`${input} ${explain(entries)}.`));
  const files = entries
    .filter((entry) => entry.isFile() && ENDINGS.test(entry.name))
    .map((entry) => join(entry.parentPath, entry.name))
    .filter((file) => !/(^|[\\/])(node_modules|\.[^\\/]+)[\\/]/.test(relative(path, file)));
  if (files.length === 0) {
    return void intake.problems.push(
      bad(`The folder ${input} has no snippet in it (.html, .htm, .txt or .svg).`),
    );
  }
  for (const file of files.sort()) await collectFile(intake, file, cwd);
}

async function readPattern(intake: Intake, input: string, cwd: string): Promise<void> {
  const { glob } = await import('tinyglobby');
  const files = await glob(input.replaceAll('\\', '/'), { cwd, absolute: true, onlyFiles: true });
  if (files.length === 0) intake.problems.push(bad(`No file fits the pattern ${input}.`));
  for (const file of files.sort()) await collectFile(intake, file, cwd);
}

/** A file that is named twice, by whatever name, is read once. */
async function collectFile(intake: Intake, path: string, cwd: string): Promise<void> {
  const real = await realpath(path).catch(() => path);
  if (intake.files.has(real)) return;
  intake.files.add(real);
  await collect(intake, async () => takeOut(await readFile(path, cwd), intake.extract));
}

const DOCUMENTS: Record<string, string> = {
  md: 'a fenced block of markup',
  markdown: 'a fenced block of markup',
  csv: 'a record',
  json: 'a record',
  jsonl: 'a record',
  ndjson: 'a record',
};

/** The snippets of a file: of a document or a list all that are in it, else the file itself. */
async function takeOut(file: Snippet, extract: boolean): Promise<Snippet | Snippet[]> {
  const ending = /\.(\w+)$/.exec(file.name)?.[1]?.toLowerCase() ?? '';
  const document = DOCUMENTS[ending] !== undefined;
  if (!document && !(extract && /^html?$/.test(ending))) return file;
  const pieces = await readPieces(ending, file.text, file.path ?? file.name);
  if (pieces.length === 0)
    throw bad(`${file.path} has not ${DOCUMENTS[ending] ?? 'a block that shows markup'} in it.`);
  return pieces.map(({ text, name, line, indent, slot }, i): Snippet => {
    const shown = name ?? `${file.name}#${i + 1}`;
    if (text.trim() === '') throw bad(`${file.path}, line ${line}, has no code.`);
    const place = { line, ...(indent !== undefined && { indent }) };
    return { name: shown, path: file.path, text, ...place, ...(slot !== null && { slot }) };
  });
}

async function readPieces(ending: string, text: string, shown: string): Promise<Piece[]> {
  if (/^(md|markdown)$/.test(ending))
    return (await import('../core/intake/markdown.js')).takeFromMarkdown(text);
  if (/^html?$/.test(ending)) return (await import('../core/intake/extract.js')).takeFromHtml(text);
  const { takeFromCsv, takeFromJson, takeFromJsonLines } = await import('../core/intake/list.js');
  if (ending === 'csv') return takeFromCsv(text, shown);
  return ending === 'json' ? takeFromJson(text, shown) : takeFromJsonLines(text, shown);
}

async function readFile(path: string, cwd: string): Promise<Snippet> {
  const shown = relative(cwd, path) || path;
  try {
    const handle = await open(path, 'r');
    try {
      const { size } = await handle.stat();
      if (size > LARGEST) throw tooLarge(shown, size);
      return fromBytes(basename(path), shown, shown, await handle.readFile());
    } finally {
      await handle.close();
    }
  } catch (error) {
    if (error instanceof ToolError) throw error;
    throw bad(`${shown} ${explain(error as NodeJS.ErrnoException)}.`);
  }
}

function fromBytes(name: string, path: string | null, shown: string, bytes: Buffer): Snippet {
  if (bytes.length > LARGEST) throw tooLarge(shown, bytes.length);
  const wide = getMark(bytes)?.startsWith('utf-16') ?? false;
  if (!wide && bytes.subarray(0, 8000).includes(0))
    throw bad(`${shown} is not text but a binary file.`);
  const text = decodeText(bytes);
  if (text === null) throw bad(`${shown} is not UTF-8; save it as UTF-8 and try again.`);
  return { ...fromText(name, shown, text), path };
}

/** A page that is published: its text is fetched when the run begins. */
function fromAddress(input: string): Snippet {
  if (!URL.canParse(input)) throw bad(`${input} is no address of a page.`);
  const { href, host, pathname, search, username } = new URL(input);
  if (username !== '')
    throw bad(
      `${host} comes with a name or a password: an address stands in reports, give it without.`,
    );
  const name = (host + pathname + search).replace(/\/$/, '');
  return { name, path: href, text: '', published: { address: href, headers: {} } };
}

function fromText(name: string, shown: string, text: string): Snippet {
  if (text.trim() === '') throw bad(`${shown} is empty.`);
  if (text.length > LARGEST) throw tooLarge(shown, text.length);
  return { name, path: null, text };
}

async function readAll(stdin: Readable): Promise<Buffer> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of stdin) {
    chunks.push(Buffer.from(chunk as Buffer));
    size += (chunk as Buffer).length;
    if (size > LARGEST) break;
  }
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

function tooLarge(shown: string, size: number): ToolError {
  return bad(
    `${shown} has ${formatBytes(size)}; a snippet may have ${formatBytes(LARGEST)} at most.`,
  );
}

function explain(error: NodeJS.ErrnoException): string {
  if (error.code === 'ENOENT' || error.code === 'ENOTDIR') return 'does not exist';
  if (error.code === 'EACCES' || error.code === 'EPERM')
    return 'may not be read: permission denied';
  return `could not be read (${error.code ?? error.message})`;
}

function bad(message: string): ToolError {
  return new ToolError('bad-input', message);
}
