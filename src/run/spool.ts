import { open, type FileHandle } from 'node:fs/promises';
import { join } from 'node:path';
import { makeTemporary, type Temporary } from '../render/machine/temporary.js';

/** Where a line stands in the file. */
interface Line {
  at: number;
  length: number;
}

/**
 * Results that are put away until all are there, so that a long run does not hold them in memory; where
 * there is no room to put them they are held all the same.
 */
export class Spool<T> {
  #lines: (Line | { held: string } | undefined)[] = [];
  #end = 0;
  readonly #makeFolder: () => Promise<Temporary>;
  #opening: Promise<{ folder: Temporary; file: FileHandle }> | null = null;

  constructor(makeFolder = () => makeTemporary('results')) {
    this.#makeFolder = makeFolder;
  }

  /** Puts a result in its place, whatever finished first. */
  async put(index: number, result: T): Promise<void> {
    const text = JSON.stringify(result);
    this.#lines[index] = await this.#write(Buffer.from(text)).catch(() => ({ held: text }));
  }

  async #write(bytes: Buffer): Promise<Line> {
    const { file } = await (this.#opening ??= this.#open());
    const line = { at: this.#end, length: bytes.length };
    this.#end += bytes.length;
    for (let done = 0; done < bytes.length;) {
      const left = bytes.length - done;
      done += (await file.write(bytes, done, left, line.at + done)).bytesWritten;
    }
    return line;
  }

  /** All that were put away, in their order. */
  async *read(): AsyncGenerator<T, void, undefined> {
    for (const line of this.#lines) {
      if (!line) continue;
      const text = 'held' in line ? line.held : await this.#readLine(line);
      yield JSON.parse(text) as T;
    }
  }

  async #readLine({ at, length }: Line): Promise<string> {
    const { file } = await this.#opening!;
    const bytes = Buffer.alloc(length);
    await file.read(bytes, 0, length, at);
    return bytes.toString();
  }

  async close(): Promise<void> {
    const opened = await this.#opening?.catch(() => null);
    await opened?.file.close().catch(() => undefined);
    await opened?.folder.remove();
    this.#opening = null;
  }

  async #open(): Promise<{ folder: Temporary; file: FileHandle }> {
    const folder = await this.#makeFolder();
    return { folder, file: await open(join(folder.path, 'results'), 'w+') };
  }
}
