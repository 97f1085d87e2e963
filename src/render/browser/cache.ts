import { chmod, lstat, mkdir, mkdtemp, readdir, rename, rm, stat } from 'node:fs/promises';
import { hostname } from 'node:os';
import { join } from 'node:path';
import { ToolError } from '../../core/errors.js';
import { describeFault } from '../../core/words/fault.js';
import { exists, makeFolder } from '../machine/folder.js';
import { isAlive } from '../machine/alive.js';
import { getCacheFolder, isOwnFolder } from '../machine/cache-folder.js';

/** Written last: what has it is whole. */
const READY = 'ready';
/** What is being made has a name that says by whom, so that what nobody finishes can be told. */
const MAKER = `making-${hostname().replace(/[^\w.]/g, '')}-`;
const LONGEST_MAKING = 3600 * 1000;

const making = new Map<string, Promise<string>>();

/** Begins to fill an empty folder of the cache, several parts at once. */
type Fill = (folder: string) => Promise<unknown>[];

/**
 * A folder of the cache, filled once and then kept. Whoever comes second, in this process or in
 * another, takes what the first has made; what was left half done is made anew.
 * @returns the absolute path of the folder
 * @throws ToolError `browser-failed`
 */
export async function getKept(name: string, fill: Fill): Promise<string> {
  const cache = await openCache();
  const target = join(cache, name);
  if (await exists(join(target, READY))) return target;
  const begun = making.get(target) ?? make(cache, target, fill);
  making.set(target, begun);
  return begun.finally(() => making.delete(target));
}

async function make(cache: string, target: string, fill: Fill): Promise<string> {
  await sweep(cache);
  let folder: string | null = null;
  try {
    folder = await mkdtemp(join(cache, `${MAKER}${process.pid}-`));
    await finishAll(fill(folder));
    await mkdir(join(folder, READY));
    await settle(folder, target);
    return target;
  } catch (error) {
    throw new ToolError(
      'browser-failed',
      `The browser that came along could not be unpacked in ${cache}: ${describeFault(error)}; XDG_CACHE_HOME names another place.`,
      { cause: error },
    );
  } finally {
    if (folder) await rm(folder, { recursive: true, force: true }).catch(() => undefined);
  }
}

/** Waits for all parts, also after one has failed: nothing is written any more when it is cleaned up. */
async function finishAll(parts: readonly Promise<unknown>[]): Promise<void> {
  const faults: unknown[] = [];
  await Promise.all(parts.map((part) => part.catch((error: unknown) => faults.push(error))));
  if (faults.length > 0) throw faults[0];
}

/** Another process may have been faster: its copy is as good. What stands there without being whole goes. */
async function settle(folder: string, target: string): Promise<void> {
  await rename(folder, target).catch(async (error: unknown) => {
    if (await exists(join(target, READY))) return;
    if (!(await exists(target))) throw error;
    await rm(target, { recursive: true, force: true });
    await rename(folder, target);
  });
}

/** Removes what was begun and will not be finished: its maker is gone, or has been at it for an hour. */
async function sweep(cache: string): Promise<void> {
  const names = await readdir(cache).catch(() => []);
  for (const name of names.filter((one) => one.startsWith('making-'))) {
    const path = join(cache, name);
    const pid = name.startsWith(MAKER) ? Number.parseInt(name.slice(MAKER.length), 10) : null;
    const age = Date.now() - ((await stat(path).catch(() => null))?.mtimeMs ?? Date.now());
    if ((pid !== null && !isAlive(pid)) || age > LONGEST_MAKING)
      await rm(path, { recursive: true, force: true }).catch(() => undefined);
  }
}

/** The cache holds a program we run: it must be ours alone, or somebody else could swap it. */
async function openCache(): Promise<string> {
  const folder = getCacheFolder();
  const fault = (why: string) =>
    new ToolError(
      'browser-failed',
      `The browser that came along has nowhere to be unpacked: ${folder} ${why}; XDG_CACHE_HOME names another place.`,
    );
  await makeFolder(folder, 0o700).catch((error: unknown) => {
    throw fault(`cannot be made (${describeFault(error)})`);
  });
  const found = await lstat(folder);
  if (!isOwnFolder(found)) throw fault('is not a folder of your own');
  if (found.mode & 0o077)
    await chmod(folder, 0o700).catch((error: unknown) => {
      throw fault(`is open to others, and that cannot be changed (${describeFault(error)})`);
    });
  return folder;
}
