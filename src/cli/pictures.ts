import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { writeWhole, type Faults } from './save.js';

/** The pictures of a run by their hash; in a kept run they are files as well. */
export class PictureStore {
  #folder: string | null;
  #faults: Faults;
  #bytes = new Map<string, Buffer>();

  /**
   * @param folder where they are kept; null for nowhere
   * @param faults takes what cannot be written: the run goes on without
   */
  constructor(folder: string | null, faults: Faults) {
    this.#folder = folder;
    this.#faults = faults;
  }

  async add(hash: string, bytes: Buffer): Promise<void> {
    if (this.#bytes.has(hash)) return;
    this.#bytes.set(hash, bytes);
    if (this.#folder !== null)
      await this.#faults.collect(writeWhole(getPath(this.#folder, hash), bytes));
  }

  /** Whether a kept picture is there, and remembers it. */
  async recall(hash: string): Promise<boolean> {
    if (this.#bytes.has(hash)) return true;
    if (this.#folder === null || !/^[0-9a-f]{64}$/.test(hash)) return false;
    const bytes = await readFile(getPath(this.#folder, hash)).catch(() => null);
    if (bytes) this.#bytes.set(hash, bytes);
    return bytes !== null;
  }

  getBase64(hash: string): string | null {
    return this.#bytes.get(hash)?.toString('base64') ?? null;
  }
}

function getPath(folder: string, hash: string): string {
  return join(folder, `${hash}.png`);
}
