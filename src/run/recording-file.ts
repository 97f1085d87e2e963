import { hashOf } from './hash.js';
import { createReadStream } from 'node:fs';
import { open, readFile, rename, rm, stat, type FileHandle } from 'node:fs/promises';
import { basename, dirname } from 'node:path';
import { createInterface } from 'node:readline';
import { ToolError } from '../core/errors.js';
import type { Exchange, Load } from '../core/recording/exchange.js';
import { formatBytes } from '../core/measure/units.js';
import { formatHarEnd, formatHarEntry, formatHarHead, getPageId } from '../formats/har.js';
import { parseHar } from '../formats/har-read.js';
import { makeFolder } from '../render/machine/folder.js';
import { cannotWrite, getMakingName, removeLeft } from './write.js';
import { getVersion } from './version.js';

/** A recording, and the mark it is known by. */
export class RecordingText {
  /** hex SHA-256 */
  readonly hash: string;
  /** null once it was made out: there is much of it. */
  #bytes: Buffer | null;
  #shown: string;
  #exchanges: Exchange[] | null = null;

  /** @throws ToolError `bad-recording`: which file, and why it cannot be read */
  static async open(path: string, shown: string): Promise<RecordingText> {
    return new RecordingText(await read(path, shown), shown);
  }

  private constructor(bytes: Buffer, shown: string) {
    this.hash = hashOf(bytes);
    this.#bytes = bytes;
    this.#shown = shown;
  }

  /** What stands in it, made out the first time. @throws ToolError `bad-recording`: what is wrong with it */
  getExchanges(): Exchange[] {
    this.#exchanges ??= parseHar(this.#bytes!.toString('utf8'), this.#shown);
    this.#bytes = null;
    return this.#exchanges;
  }
}

/** The longest text that Node can hold, less some room. */
const LARGEST = 500_000_000;

async function read(path: string, shown: string): Promise<Buffer> {
  const found = await stat(path).catch((error: NodeJS.ErrnoException) => error);
  const fail = (why: string) => new ToolError('bad-recording', `${shown} ${why}.`);
  if (!('size' in found))
    throw fail(found.code === 'ENOENT' ? 'does not exist' : `could not be read (${found.code})`);
  if (!found.isFile()) throw fail('is not a file');
  if (found.size > LARGEST)
    throw fail(`has ${formatBytes(found.size)}; a recording may have ${formatBytes(LARGEST)}`);
  return readFile(path);
}

/**
 * A recording while it is made: exchanges are spooled beside the file, a line each, and become the
 * archive at the end, also of an interrupted run.
 */
export class RecordingFile {
  readonly spool: string;
  #path: string;

  /** @throws ToolError `cannot-write` */
  static async open(path: string): Promise<RecordingFile> {
    const file = new RecordingFile(path);
    try {
      await makeFolder(dirname(path));
      await removeLeft(dirname(path), basename(path));
      await (await open(file.spool, 'w')).close();
    } catch (error) {
      throw cannotWrite(path, error);
    }
    return file;
  }

  private constructor(path: string) {
    this.#path = path;
    this.spool = `${getMakingName(path)}-lines`;
  }

  /** Makes the archive of what was spooled. Call it when the renderer is closed. */
  async finish(): Promise<void> {
    const making = getMakingName(this.#path);
    try {
      const file = await open(making, 'w');
      await this.#format(file).finally(() => file.close());
      await rename(making, this.#path);
    } catch (error) {
      await rm(making, { force: true });
      throw cannotWrite(this.#path, error);
    } finally {
      await rm(this.spool, { force: true });
    }
  }

  async #format(file: FileHandle): Promise<void> {
    const loads = new Map<string, { load: Load; startedAt: string }>();
    await file.write(formatHarHead(getVersion()));
    let separator = '\n';
    const lines = createInterface({ input: createReadStream(this.spool), crlfDelay: Infinity });
    for await (const line of lines) {
      const exchange = JSON.parse(line) as Exchange;
      const id = getPageId(exchange.load);
      if (!loads.has(id)) loads.set(id, exchange);
      await file.write(separator + formatHarEntry(exchange));
      separator = ',\n';
    }
    await file.write(formatHarEnd(loads));
  }
}
