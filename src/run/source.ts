import { hashOf } from './hash.js';
import { readdir, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { getRenderedPart } from '../core/house/plain.js';
import type { BrowserProgram } from '../render/browser/bundled.js';
import type { Plan } from './request.js';
import { getVersion } from './version.js';

/**
 * Names everything but the snippets that a replayed run is rendered from: recording, house, page
 * and its files, tool, browser. The same name, the same evidence.
 */
export async function nameSource(
  { house, ownPage, root, slots, viewports }: Plan,
  recordingHash: string,
  program: BrowserProgram,
): Promise<string> {
  const { size, mtimeMs } = await stat(program.path);
  const parts = [
    getVersion(),
    // Fonts stand in a folder of their own: its name is in the environment.
    [program.path, size, mtimeMs, program.env],
    recordingHash,
    getRenderedPart({ ...house, slots: [...slots], viewports: [...viewports] }),
    ownPage,
    root === null ? [] : await listFiles(root),
  ];
  return hashOf(JSON.stringify(parts));
}

/** A folder's files with size and time of change. */
async function listFiles(root: string): Promise<unknown[]> {
  const entries = await readdir(root, { recursive: true, withFileTypes: true });
  const files = entries.filter((entry) => !entry.isDirectory());
  const listed = await Promise.all(
    files.map(async (entry) => {
      const path = join(entry.parentPath, entry.name);
      const found = await stat(path).catch(() => null);
      return [path, found?.size ?? null, found?.mtimeMs ?? null] as const;
    }),
  );
  return listed.sort(([a], [b]) => a.localeCompare(b));
}
