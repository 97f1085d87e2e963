import { createHash } from 'node:crypto';
import {
  lstatSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { dirname, join } from 'node:path';
import { cachedDataVersionTag } from 'node:v8';
import { threadId } from 'node:worker_threads';
import { isOwnFolder } from '../../render/machine/cache-folder.js';

/** How many builds are remembered, of this program in several versions, places and kinds of start. */
const BUILDS = 8;

/** What V8 compiled of the chunks of one build, a file each. Nothing depends on any of it. */
export class CodeCache {
  #cache: string;
  /** Of this program: in the one of the build, which is in the one of all builds. */
  #folder: string;
  #ours: boolean;
  #made = false;

  /**
   * @param cache the folder of what is kept, not there perhaps
   * @param build tells one build from all others: V8 itself compares lengths only
   * @param program what is started: threads compile each its own part of a chunk that they share
   */
  constructor(cache: string, build: string, program: string) {
    this.#cache = cache;
    const ours = `${build}-${cachedDataVersionTag().toString(16)}`;
    this.#folder = join(cache, 'code', ours, program);
    this.#ours = isOurs(cache);
  }

  /** Null where nothing is kept, or is not whole: V8 takes what it is given unseen, and breaks down over it. */
  read(name: string): Buffer | null {
    if (!this.#ours) return null;
    try {
      const file = readFileSync(join(this.#folder, name));
      const data = file.subarray(0, -DIGEST);
      return getDigest(data).equals(file.subarray(data.length)) ? data : null;
    } catch {
      return null;
    }
  }

  /** Whether it could be kept. Others may be keeping the same at this moment. */
  write(name: string, data: Buffer): boolean {
    const path = join(this.#folder, name);
    const making = `${path}.${process.pid}-${threadId}`;
    try {
      this.#make();
      writeFileSync(making, Buffer.concat([data, getDigest(data)]));
      renameSync(making, path);
      return true;
    } catch {
      forget(making);
      return false;
    }
  }

  /** Folder by folder: below /proc Node's way of making all at once does not come to an end. */
  #make(): void {
    if (this.#made) return;
    const build = dirname(this.#folder);
    const code = dirname(build);
    for (const folder of [dirname(this.#cache), this.#cache, code, build, this.#folder])
      if (!isFolder(folder)) mkdirSync(folder, { mode: 0o700 });
    if (!isOurs(this.#cache)) throw new Error('somebody else could swap what is kept');
    forgetOldest(code);
    this.#made = true;
  }
}

function forgetOldest(code: string): void {
  const paths = readdirSync(code).map((name) => join(code, name));
  const aged = paths.map((path) => ({ path, at: statSync(path).mtimeMs }));
  for (const { path } of aged.sort((a, b) => b.at - a.at).slice(BUILDS))
    rmSync(path, { recursive: true, force: true });
}

/** There, and nobody else may write in it. */
function isOurs(cache: string): boolean {
  try {
    const found = lstatSync(cache);
    return isOwnFolder(found) && (found.mode & 0o022) === 0;
  } catch {
    return false;
  }
}

function forget(path: string): void {
  try {
    rmSync(path, { force: true });
  } catch {
    // Where nothing can be removed nothing was written.
  }
}

function isFolder(path: string): boolean {
  return !!statSync(path, { throwIfNoEntry: false })?.isDirectory();
}

/** Against what breaks by itself: who may write here may as well write a digest. */
function getDigest(data: Buffer): Buffer {
  return createHash('sha1').update(data).digest();
}

const DIGEST = 20;
