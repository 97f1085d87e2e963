import { readdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import type { Baseline, Evidence } from '../core/evidence.js';
import { flatMap } from '../core/lists.js';
import type { House } from '../core/house/house.js';
import { toPlainHouse } from '../core/house/plain.js';
import type { RunDocument } from '../core/run.js';
import type { Snippet } from '../core/snippet.js';
import { formatJson } from '../formats/json.js';
import { makeFolder } from '../render/machine/folder.js';
import { hashOf } from './hash.js';
import { isPassing } from '../render/bounds/lost.js';
import {
  BASELINES,
  EVIDENCE,
  getEvidenceName,
  getShotFolder,
  KEPT_LIST,
  KEPT_VERSION,
  readBaselines,
  readEvidence,
  readList,
  RUN,
  type KeptList,
} from './kept-run.js';
import { cannotWrite, removeLeft, writeWhole } from './write.js';

/**
 * Keeps a run: a compressed JSON Lines file a snippet, a line a render. What a folder already has
 * from the same recording, house, tool and browser is used again.
 */
export class Keeper {
  readonly #folder: string;
  readonly #source: string | null;
  #before: KeptList | null = null;
  #baselines = new Map<string, Baseline>();
  /** Files of this run, with their hashes. */
  #kept = new Map<string, string>();

  /**
   * @param source what the run is rendered from, where that is the same every time
   * @throws ToolError `cannot-write`
   */
  static async open(folder: string, source: string | null): Promise<Keeper> {
    await makeFolder(join(folder, EVIDENCE)).catch((error: unknown) => {
      throw cannotWrite(folder, error);
    });
    for (const one of [folder, join(folder, EVIDENCE), getShotFolder(folder)])
      await removeLeft(one);
    const keeper = new Keeper(folder, source);
    if (source !== null) await keeper.#remember(source);
    return keeper;
  }

  private constructor(folder: string, source: string | null) {
    this.#folder = folder;
    this.#source = source;
  }

  /** What was kept is a convenience: where it cannot be read, everything is rendered again. */
  async #remember(source: string): Promise<void> {
    const list = await readList(this.#folder, this.#folder).catch(() => null);
    // What an earlier version did not look for is looked for now.
    if (list?.source !== source || list.schema !== KEPT_VERSION) return;
    const baselines = await readBaselines(this.#folder, this.#folder).catch(() => null);
    if (baselines) {
      this.#before = list;
      this.#baselines = baselines;
    }
  }

  /** Whether the folder has what was rendered from the same. */
  get remembers(): boolean {
    return this.#before !== null;
  }

  /** The engines that what is used again was rendered in. */
  get engines(): KeptList['engines'] {
    return this.#before?.engines ?? [];
  }

  get baselines(): ReadonlyMap<string, Baseline> {
    return this.#baselines;
  }

  /** The evidence of an unchanged snippet; null where it must be rendered. */
  async find(snippet: Snippet): Promise<Evidence[] | null> {
    const file = getEvidenceName(snippet);
    const known = this.#before?.snippets.find((one) => one.file === file);
    if (!known) return null;
    const found = await readEvidence(this.#folder, this.#folder, {
      ...known,
      schema: this.#before!.schema,
    }).catch(() => null);
    // What broke down may have been the machine's doing: it is tried again.
    if (!found || found.evidence.some(isLost)) return null;
    this.#kept.set(file, known.hash);
    return found.evidence;
  }

  async keep(
    snippet: Snippet,
    evidence: readonly Evidence[],
    baselines: ReadonlyMap<string, Baseline>,
  ): Promise<void> {
    for (const [key, baseline] of baselines) this.#baselines.set(key, baseline);
    const file = getEvidenceName(snippet);
    const lines = [{ snippet }, ...evidence].map((one) => `${JSON.stringify(one)}\n`);
    const path = join(this.#folder, EVIDENCE, `${file}.jsonl.gz`);
    const packed = gzipSync(lines.join(''));
    await writeWhole(path, packed);
    this.#kept.set(file, hashOf(packed));
  }

  /** Writes what holds the run together. Evidence that no snippet of a finished run has is removed. */
  async finish(
    document: RunDocument,
    snippets: readonly Snippet[],
    rest: Pick<KeptList, 'engines' | 'ownPage' | 'slots' | 'viewports'> & { house: House },
  ): Promise<void> {
    const kept = flatMap(
      snippets.map((one) => ({ name: one.name, path: one.path, file: getEvidenceName(one) })),
      (one) => {
        const hash = this.#kept.get(one.file);
        return hash === undefined ? [] : [{ ...one, hash }];
      },
    );
    const list = {
      schema: `mivket-kept-${KEPT_VERSION}`,
      tool: document.tool.version,
      startedAt: document.startedAt,
      source: this.#source,
      ...rest,
      house: toPlainHouse(rest.house) as Record<string, unknown>,
      snippets: kept,
    };
    const baselines = gzipSync(JSON.stringify([...this.#baselines]));
    await writeWhole(join(this.#folder, BASELINES), baselines);
    await writeWhole(join(this.#folder, KEPT_LIST), `${JSON.stringify(list, null, 2)}\n`);
    await writeWhole(join(this.#folder, RUN), formatJson(document));
    if (kept.length === snippets.length) await this.#removeOld(new Set(kept.map((k) => k.file)));
  }

  async #removeOld(files: ReadonlySet<string>): Promise<void> {
    const folder = join(this.#folder, EVIDENCE);
    const old = (await readdir(folder)).filter((name) => {
      const file = /^([0-9a-f]{16})\.jsonl\.gz$/.exec(name)?.[1];
      return file !== undefined && !files.has(file);
    });
    await Promise.all(old.map((name) => rm(join(folder, name), { force: true })));
  }
}

function isLost({ gaps }: Evidence): boolean {
  return gaps.some(({ kind, why, kept }) => (kind === 'page' && kept === null) || isPassing(why));
}
