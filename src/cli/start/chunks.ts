import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { Script } from 'node:vm';
import type { CodeCache } from './code-cache.js';

/** What a chunk is given, in the order of `HEAD`. */
type Body = (
  exports: object,
  require: (name: string) => unknown,
  module: { exports: object },
  moduleUrl: string,
) => void;

const HEAD = '(function(exports,require,module,moduleUrl){';

/**
 * The files that the command line is bundled into, each in the form of CommonJS. V8 compiles most
 * of a program only as it is used, at every start anew, which is nearly half of a short run: what
 * came of it is kept here. Node's own cache of this kind needs Node 22, and other ones keep
 * what was compiled at the beginning alone.
 */
export class Chunks {
  #folder: string;
  #cache: CodeCache;
  /** For what is Node's own. */
  #native: NodeJS.Require;
  #modules = new Map<string, { exports: object }>();
  #loaded: { name: string; script: Script; kept: number }[] = [];

  constructor(folder: string, cache: CodeCache) {
    this.#folder = folder;
    this.#cache = cache;
    this.#native = createRequire(join(folder, 'chunk.cjs'));
  }

  /** @throws whatever the chunk throws, or the system where there is none */
  load(name: string): object {
    const module = this.#modules.get(name) ?? this.#run(name);
    return module.exports;
  }

  #run(name: string): { exports: object } {
    const filename = join(this.#folder, `${name}.cjs`);
    const cachedData = this.#cache.read(name);
    const text = `${HEAD}${readFileSync(filename, 'utf8')}\n})`;
    const script = new Script(text, { filename, ...(cachedData && { cachedData }) });
    const kept = script.cachedDataRejected === false ? cachedData!.length : 0;
    this.#loaded.push({ name, script, kept });
    const module = { exports: {} };
    this.#modules.set(name, module);
    const body = script.runInThisContext() as Body;
    const require = (wanted: string) => {
      const chunk = /^\.\/(.+)\.js$/.exec(wanted);
      return chunk ? this.load(chunk[1]!) : (this.#native(wanted) as unknown);
    };
    body(module.exports, require, module, pathToFileURL(filename).href);
    return module;
  }

  /**
   * Keeps what has been compiled of chunks that were not kept yet.
   * @param grown also of those of which much more was compiled meanwhile than is kept
   */
  keep(grown: boolean): void {
    for (const { name, script, kept } of this.#loaded) {
      if (kept > 0 && !grown) continue;
      const data = script.createCachedData();
      if (data.length > kept * MUCH && !this.#cache.write(name, data)) return;
    }
  }
}

const MUCH = 1.25;
