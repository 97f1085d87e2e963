import { readdir, rm, stat } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { getBundledBrowser } from './bundled.js';
import { getCacheFolder } from '../machine/cache-folder.js';

/** What a version of Mivket keeps in the cache, by its name. */
const KEPT = /^(browser|fonts)-/;

/** A folder that a version before left in the cache. */
export interface OldCache {
  path: string;
  bytes: number;
}

/** The folders of the cache that this version does not use; none where no browser came along with it. */
export async function listOldCaches(): Promise<OldCache[]> {
  const bundled = await getBundledBrowser().catch(() => null);
  if (!bundled) return [];
  const used = [bundled.path, bundled.env.FONTCONFIG_FILE ?? ''].map((path) =>
    basename(dirname(path)),
  );
  const cache = getCacheFolder();
  const names = await readdir(cache).catch(() => []);
  const old = names.filter((name) => KEPT.test(name) && !used.includes(name));
  return Promise.all(
    old.map(async (name) => {
      const path = join(cache, name);
      return { path, bytes: await measureFolder(path) };
    }),
  );
}

/** Removes them. What cannot be removed stays, and is told again. */
export async function removeOldCaches(old: readonly OldCache[]): Promise<void> {
  for (const { path } of old)
    await rm(path, { recursive: true, force: true }).catch(() => undefined);
}

async function measureFolder(folder: string): Promise<number> {
  const entries = await readdir(folder, { recursive: true }).catch(() => []);
  const sizes = await Promise.all(
    entries.map(async (name) => (await stat(join(folder, name)).catch(() => null))?.size ?? 0),
  );
  return sizes.reduce((sum, size) => sum + size, 0);
}
