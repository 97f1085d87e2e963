import { mkdtemp, open, rm, type FileHandle } from 'node:fs/promises';
import { rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Where a line stands in the file. */
interface Line {
  at: number;
  length: number;
}

/** Results that are put away until all are there, so that a long run does not hold them in memory. */
export class Spool<T> {
  #lines: (Line | undefined)[] = [];
  #end = 0;
  #opening: Promise<{ folder: string; file: FileHandle }> | null = null;
  #removeAtExit: (() => void) | null = null;

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
    if (this.#removeAtExit) process.off('exit', this.#removeAtExit);
    await opened?.file.close();
    if (opened) await rm(opened.folder, { recursive: true, force: true });
    this.#opening = null;
  }

  async #open(): Promise<{ folder: string; file: FileHandle }> {
    const folder = await mkdtemp(join(tmpdir(), 'mivket-results-'));
    // A second Ctrl-C ends at once.
    this.#removeAtExit = () => rmSync(folder, { recursive: true, force: true });
    process.on('exit', this.#removeAtExit);
    return { folder, file: await open(join(folder, 'results'), 'w+') };
  }
}
