import { rename, rm, writeFile } from 'node:fs/promises';
import { dirname } from 'node:path';
import { ToolError } from '../core/errors.js';
import { describeFault } from '../core/words/fault.js';
import { makeFolder } from '../render/folder.js';

/**
 * Written beside and renamed: whoever reads it finds the old file or the whole new one.
 * @throws ToolError `cannot-write`
 */
export async function writeWhole(path: string, content: string | Uint8Array): Promise<void> {
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

/** The name a file has while it is being made. */
export function getMakingName(path: string): string {
  return `${path}.${process.pid}.tmp`;
}

export function cannotWrite(path: string, error: unknown): ToolError {
  const why = describeFault(error);
  return new ToolError('cannot-write', `${path} could not be written: ${why}.`, { cause: error });
}
