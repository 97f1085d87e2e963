import { access, mkdir, stat } from 'node:fs/promises';
import { dirname } from 'node:path';

/**
 * Makes a folder and those above it that are missing. Node's own way to do so never comes to an end
 * where a folder cannot have any in it, as below /proc.
 * @throws the system's error
 */
export async function makeFolder(path: string, mode = 0o777): Promise<void> {
  const parent = dirname(path);
  if (parent !== path && !(await isFolder(parent))) await makeFolder(parent, mode);
  await mkdir(path, { mode }).catch(async (error: unknown) => {
    if (!(await isFolder(path))) throw error;
  });
}

async function isFolder(path: string): Promise<boolean> {
  return stat(path).then(
    (found) => found.isDirectory(),
    () => false,
  );
}

/** Whether something is there under that path. */
export async function exists(path: string | URL): Promise<boolean> {
  return access(path).then(
    () => true,
    () => false,
  );
}
