import { fileURLToPath } from 'node:url';
import { getCacheFolder } from '../../render/machine/cache-folder.js';
import { Chunks } from './chunks.js';
import { CodeCache } from './code-cache.js';

/** A digest of all chunks, put here by the bundler. */
declare const BUILD: string;

/** In s. What a longer run has compiled besides is worth looking for: that takes a twentieth of a second. */
const LONG = 4;

/**
 * Starts a program of the bundle beside this file, and keeps what was compiled of it when it ends.
 * @param name of its chunk, which is also its name in the cache
 * @returns what the chunk exports
 */
export function startProgram(name: string): object {
  const cache = new CodeCache(getCacheFolder(), BUILD, name);
  const chunks = new Chunks(fileURLToPath(new URL('.', import.meta.url)), cache);
  process.once('exit', () => chunks.keep(process.uptime() > LONG));
  return chunks.load(name);
}
