import { readdir, realpath, stat } from 'node:fs/promises';
import { join, sep } from 'node:path';
import { explainFileFault } from './file-fault.js';

/** What is in a folder, and what of it could not be looked at. */
export interface Walked {
  files: string[];
  problems: { path: string; why: string }[];
}

/** Folders that hold no snippets of anybody's own. */
const PASSED_BY = /^(node_modules|\..+)$/;

/**
 * The files of a folder and of those in it. Links are followed; one that leads out of the folder is, and none from
 * there out again: where that ends nobody could tell.
 */
export async function walkFolder(
  folder: string,
  isWanted: (name: string) => boolean,
): Promise<Walked> {
  const walked: Walked = { files: [], problems: [] };
  const home = await realpath(folder).catch(() => folder);
  await walk(folder, { home, isOut: false }, { isWanted, walked, seen: new Set() });
  return walked;
}

/** The folder that links lead out of, and whether one has. */
interface Bounds {
  home: string;
  isOut: boolean;
}

interface Walk {
  isWanted(name: string): boolean;
  walked: Walked;
  /** Folders by their own paths: a link to one above comes round again. */
  seen: Set<string>;
}

async function walk(folder: string, bounds: Bounds, walking: Walk): Promise<void> {
  const { walked, seen } = walking;
  const real = await realpath(folder).catch(() => folder);
  if (seen.has(real)) return;
  seen.add(real);
  const entries = await readdir(folder, { withFileTypes: true }).catch(
    (error: NodeJS.ErrnoException) => error,
  );
  if (!Array.isArray(entries))
    return void walked.problems.push({ path: folder, why: explainFileFault(entries) });
  for (const entry of entries) {
    const path = join(folder, entry.name);
    if (entry.isSymbolicLink()) await follow(path, entry.name, bounds, walking);
    else if (entry.isFile() || entry.isDirectory())
      await take(path, entry.name, entry.isDirectory(), bounds, walking);
  }
}

async function take(
  path: string,
  name: string,
  isFolder: boolean,
  bounds: Bounds,
  walking: Walk,
): Promise<void> {
  if (isFolder && !PASSED_BY.test(name)) await walk(path, bounds, walking);
  if (!isFolder && walking.isWanted(name)) walking.walked.files.push(path);
}

async function follow(path: string, name: string, bounds: Bounds, walking: Walk): Promise<void> {
  const { problems } = walking.walked;
  const found = await stat(path).catch(() => null);
  const isFolder = found?.isDirectory() ?? false;
  if (found && !isFolder && !(found.isFile() && walking.isWanted(name))) return;
  if (!found) {
    if (walking.isWanted(name)) problems.push({ path, why: 'is a link that leads nowhere' });
    return;
  }
  const real = await realpath(path);
  const leavesHome = real !== bounds.home && !real.startsWith(bounds.home + sep);
  if (leavesHome && bounds.isOut)
    return void problems.push({ path, why: 'is a link out of a folder that a link led to' });
  const inner = leavesHome ? { home: isFolder ? real : bounds.home, isOut: true } : bounds;
  await take(path, name, isFolder, inner, walking);
}
