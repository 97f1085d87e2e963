import type { Stats } from 'node:fs';
import { homedir, tmpdir } from 'node:os';
import { isAbsolute, join } from 'node:path';

/** Where what costs much to make is kept. An address that is not absolute is none (XDG Base Directory 0.8). */
export function getCacheFolder(): string {
  const given = process.env.XDG_CACHE_HOME;
  return join(given && isAbsolute(given) ? given : join(getHome(), '.cache'), 'mivket');
}

/** Who has no home, as a user without an entry in a container, has a temporary folder at least. */
function getHome(): string {
  try {
    return homedir();
  } catch {
    return tmpdir();
  }
}

/** What is kept is run: the folder must be the user's own, or somebody else could swap it. */
export function isOwnFolder(found: Stats): boolean {
  return found.isDirectory() && (!process.getuid || found.uid === process.getuid());
}
