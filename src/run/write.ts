import { open, readdir, rename, rm, stat, writeFile } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { ToolError } from '../core/errors.js';
import { describeFault } from '../core/words/fault.js';
import { isAlive } from '../render/machine/alive.js';
import { makeFolder } from '../render/machine/folder.js';

/**
 * Written beside and renamed: whoever reads it finds the old file or the whole new one.
 * @throws ToolError `cannot-write`
 */
export async function writeWhole(
  path: string,
  content: string | Uint8Array | AsyncIterable<string>,
): Promise<void> {
  const making = getMakingName(path);
  try {
    await makeFolder(dirname(path));
    await writeFile(making, content);
    await rename(making, path);
  } catch (error) {
    await rm(making, { force: true }).catch(() => undefined);
    throw cannotWrite(path, error);
  }
}

/**
 * Looks whether a file can be written there, before anything is made that is to stand in it.
 * @throws ToolError `cannot-write`
 */
export async function checkTarget(path: string): Promise<void> {
  const making = getMakingName(path);
  try {
    const found = await stat(path).catch(() => null);
    if (found?.isDirectory()) throw Object.assign(new Error(), { code: 'EISDIR' });
    await makeFolder(dirname(path));
    await removeLeft(dirname(path), basename(path));
    await (await open(making, 'w')).close();
  } catch (error) {
    throw cannotWrite(path, error);
  } finally {
    await rm(making, { force: true }).catch(() => undefined);
  }
}

/**
 * Removes what was being made in a folder by processes that are gone, killed outright.
 * @param name of the file that was to be made; left out: of all
 */
export async function removeLeft(folder: string, name?: string): Promise<void> {
  const left = (await readdir(folder).catch(() => [])).filter((one) => {
    const [, whole, pid] = MADE_BY.exec(one) ?? [];
    return pid !== undefined && (name ?? whole) === whole && !isAlive(Number(pid));
  });
  for (const one of left) await rm(join(folder, one), { force: true }).catch(() => undefined);
}

const MADE_BY = /^(.+)\.(\d+)-\d+\.tmp(?:-lines)?$/;

let made = 0;

/** A name of its own that a file has while it is being made. */
export function getMakingName(path: string): string {
  return `${path}.${process.pid}-${++made}.tmp`;
}

export function cannotWrite(path: string, error: unknown): ToolError {
  const why = describeFault(error);
  return new ToolError('cannot-write', `${path} could not be written: ${why}.`, { cause: error });
}
