import { open, type FileHandle } from 'node:fs/promises';
import { join } from 'node:path';
import { makeTemporary, type Temporary } from '../render/temporary.js';

/** Where a line stands in the file. */
interface Line {
  at: number;
  length: number;
}

/** Results that are put away until all are there, so that a long run does not hold them in memory. */
export class Spool<T> {
  #lines: (Line | undefined)[] = [];
  #end = 0;
  #opening: Promise<{ folder: Temporary; file: FileHandle }> | null = null;

  /** Puts a result in its place, whatever finished first. */
  async put(index: number, result: T): Promise<void> {
    const { file } = await (this.#opening ??= this.#open());
    const bytes = Buffer.from(JSON.stringify(result));
    const line = { at: this.#end, length: bytes.length };
    this.#end += bytes.length;
    await file.write(bytes, 0, bytes.length, line.at);
    this.#lines[index] = line;
  }

  /** All that were put away, in their order. */
  async *read(): AsyncGenerator<T, void, undefined> {
    if (!this.#opening) return;
    const { file } = await this.#opening;
    for (const line of this.#lines) {
      if (!line) continue;
      const bytes = Buffer.alloc(line.length);
      await file.read(bytes, 0, line.length, line.at);
      yield JSON.parse(bytes.toString()) as T;
    }
  }

  async close(): Promise<void> {
    const opened = await this.#opening?.catch(() => null);
    await opened?.file.close();
    await opened?.folder.remove();
    this.#opening = null;
  }

  async #open(): Promise<{ folder: Temporary; file: FileHandle }> {
    const folder = await makeTemporary('results');
    return { folder, file: await open(join(folder.path, 'results'), 'w+') };
  }
}
