import { PNG } from 'pngjs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { GetRaster } from '../core/compare/pictures.js';
import { makeTemporary } from '../render/machine/temporary.js';
import { exists } from '../render/machine/folder.js';
import type { Faults } from './faults.js';
import { writeWhole } from './write.js';

/** The shots of a run in a folder, under their hashes. */
export class ShotStore {
  readonly #folder: string;
  readonly #faults: Faults;
  #known = new Set<string>();

  /** @param faults takes what cannot be written: the run goes on without */
  constructor(folder: string, faults: Faults) {
    this.#folder = folder;
    this.#faults = faults;
  }

  async add(hash: string, bytes: Uint8Array): Promise<void> {
    if (this.#known.has(hash)) return;
    this.#known.add(hash);
    await this.#faults.collect(writeWhole(getPath(this.#folder, hash), bytes), 'keeping a shot');
  }

  /** Whether a shot is there, also from a run before. */
  async has(hash: string): Promise<boolean> {
    const there = this.#known.has(hash) || (await exists(getPath(this.#folder, hash)));
    if (there) this.#known.add(hash);
    return there;
  }
}

/** Does something with a folder for shots: the one that is given, or one that is gone afterwards. */
export async function inShotFolder<T>(
  given: string | undefined,
  work: (folder: string) => Promise<T>,
): Promise<T> {
  if (given !== undefined) return work(given);
  const own = await makeTemporary('shots');
  try {
    return await work(own.path);
  } finally {
    await own.remove();
  }
}

/** A shot's bytes as base64; null where it is in none of the folders. */
export async function readShot(
  folders: string | readonly string[],
  hash: string,
): Promise<string | null> {
  const bytes = await readBytes([folders].flat(), hash);
  return bytes && bytes.toString('base64');
}

/** What gives the pixels of shots in folders. */
export function readRasters(...folders: string[]): GetRaster {
  return async ({ hash }) => {
    const bytes = await readBytes(folders, hash);
    if (!bytes) return null;
    const { width, height, data } = PNG.sync.read(bytes);
    return { width, height, data };
  };
}

async function readBytes(folders: readonly string[], hash: string): Promise<Buffer | null> {
  if (!/^[0-9a-f]{64}$/.test(hash)) return null;
  for (const folder of folders) {
    const bytes = await readFile(getPath(folder, hash)).catch(() => null);
    if (bytes) return bytes;
  }
  return null;
}

function getPath(folder: string, hash: string): string {
  return join(folder, `${hash}.png`);
}
