import { createHash } from 'node:crypto';
import { mkdir, rename, rm, writeFile } from 'node:fs/promises';
import { dirname, join, resolve } from 'node:path';
import { gzipSync } from 'node:zlib';
import { ToolError } from '../core/errors.js';
import type { Evidence } from '../core/evidence.js';
import type { RunDocument } from '../core/run.js';
import type { Snippet } from '../core/snippet.js';
import { formatJson } from '../formats/json.js';

/** Writes the run document to a file. */
export async function saveDocument(
  document: RunDocument,
  file: string,
  cwd: string,
): Promise<void> {
  await writeWhole(resolve(cwd, file), formatJson(document));
}

/** Keeps the evidence of a run: a compressed JSON Lines file a snippet, a line a render. */
export class Keeper {
  #folder: string;

  static async open(folder: string): Promise<Keeper> {
    await mkdir(join(folder, 'evidence'), { recursive: true }).catch((error: unknown) => {
      throw cannotWrite(folder, error);
    });
    return new Keeper(folder);
  }

  private constructor(folder: string) {
    this.#folder = folder;
  }

  async keep(snippet: Snippet, evidence: readonly Evidence[]): Promise<void> {
    const hash = createHash('sha256')
      .update(`${snippet.name}\0${snippet.text}`)
      .digest('hex')
      .slice(0, 16);
    const lines = [{ snippet }, ...evidence].map((one) => `${JSON.stringify(one)}\n`);
    await writeWhole(join(this.#folder, 'evidence', `${hash}.jsonl.gz`), gzipSync(lines.join('')));
  }
}

/** Written beside and renamed: whoever reads it finds the old file or the whole new one. */
async function writeWhole(path: string, content: string | Uint8Array): Promise<void> {
  const making = `${path}.${process.pid}.tmp`;
  try {
    await mkdir(dirname(path), { recursive: true });
    await writeFile(making, content);
    await rename(making, path);
  } catch (error) {
    await rm(making, { force: true }).catch(() => undefined);
    throw cannotWrite(path, error);
  }
}

function cannotWrite(path: string, error: unknown): ToolError {
  const { code } = error as NodeJS.ErrnoException;
  const why = code === 'EACCES' || code === 'EPERM' ? 'permission denied' : (code ?? String(error));
  return new ToolError('cannot-write', `${path} could not be written: ${why}.`, { cause: error });
}
