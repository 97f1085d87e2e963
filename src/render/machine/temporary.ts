import { mkdtemp, readdir, rm } from 'node:fs/promises';
import { rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ToolError } from '../../core/errors.js';
import { describeFault } from '../../core/words/fault.js';
import { isAlive } from './alive.js';
import { atExit } from './at-exit.js';

let sweeping: Promise<void> | null = null;

/** A folder of our own for as long as it is needed. */
export interface Temporary {
  path: string;
  remove(): Promise<void>;
}

/**
 * Makes one; it goes with the process, or, where that is killed outright, with the next that makes one.
 * @throws ToolError `cannot-write`
 */
export async function makeTemporary(what: 'profile' | 'results' | 'shots'): Promise<Temporary> {
  await (sweeping ??= sweep());
  const path = await mkdtemp(join(tmpdir(), `mivket-${what}-${process.pid}-`)).catch(
    (error: unknown) => {
      const why = describeFault(error);
      const words = `The temporary folder ${tmpdir()} cannot be used: ${why}.`;
      throw new ToolError('cannot-write', words, { cause: error });
    },
  );
  // A second Ctrl-C ends at once.
  const removeNow = () => rmSync(path, { recursive: true, force: true, maxRetries: 3 });
  const stay = atExit(removeNow);
  const remove = async () => {
    await rm(path, { recursive: true, force: true, maxRetries: 5 }).catch(() => undefined);
    stay();
  };
  return { path, remove };
}

/** Removes what a process left that is gone and could not clean up. */
async function sweep(): Promise<void> {
  const names = await readdir(tmpdir()).catch(() => []);
  const left = names.filter((name) => {
    const pid = Number(/^mivket-[a-z]+-(\d+)-/.exec(name)?.[1]);
    return pid > 0 && !isAlive(pid);
  });
  const remove = (name: string) => rm(join(tmpdir(), name), { recursive: true, force: true });
  await Promise.all(left.map((name) => remove(name).catch(() => undefined)));
}
