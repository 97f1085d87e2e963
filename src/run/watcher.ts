import { toPlainHouse } from '../core/house/plain.js';
import { joinJudged, type JudgedSnippet } from '../core/joined.js';
import { mapPresent } from '../core/lists.js';
import type { RunDocument, SnippetReport } from '../core/run.js';
import type { Snippet } from '../core/snippet.js';
import { audit, type AuditOptions } from './audit.js';
import { hashOf } from './hash.js';
import type { LoadedHouse } from './house-file.js';
import { Workplace } from './workplace.js';
import type { AuditRequest } from './request.js';

/** A snippet that was looked at again, and what had been said of it; null before the first time. */
export interface Renewed {
  before: SnippetReport | null;
  after: SnippetReport;
}

/** Audits again and again: what is as it was, in a house that is as it was, is not rendered again. */
export class Watcher {
  readonly #asked: Omit<AuditRequest, 'snippets' | keyof LoadedHouse>;
  readonly #options: AuditOptions;
  #house = '';
  #known = new Map<string, JudgedSnippet & { hash: string }>();
  readonly #workplace = new Workplace();
  #latest: RunDocument | null = null;

  constructor(asked: Omit<AuditRequest, 'snippets' | keyof LoadedHouse>, options: AuditOptions) {
    this.#asked = asked;
    this.#options = options;
  }

  /** Whatever was looked at is looked at again: a file of the page's has changed. */
  async forget(): Promise<void> {
    this.#house = '';
    await this.#workplace.close();
  }

  /** Ends the browser that it keeps for the next time. */
  close(): Promise<void> {
    return this.#workplace.close();
  }

  /**
   * Looks at what is new or changed.
   * @returns all of it as one run, with what was looked at now; null where nothing was, and nothing is gone
   * @throws ToolError
   */
  async renew(
    snippets: readonly Snippet[],
    home: LoadedHouse,
  ): Promise<{ document: RunDocument; renewed: Renewed[] } | null> {
    const house = JSON.stringify([toPlainHouse(home.house), home.ownPage, home.root]);
    const isOther = house !== this.#house;
    const due = snippets.filter(
      (one) => isOther || this.#known.get(one.name)?.hash !== hashSnippet(one),
    );
    const names = new Set(snippets.map(({ name }) => name));
    const gone = [...this.#known.keys()].filter((name) => !names.has(name));
    if (due.length === 0 && gone.length === 0) return null;
    for (const name of gone) this.#known.delete(name);
    const renewed = due.length === 0 ? [] : await this.#look(due, home);
    this.#house = house;
    const all = mapPresent(snippets, ({ name }) => this.#known.get(name));
    return { document: joinJudged(this.#latest!, all), renewed };
  }

  async #look(due: readonly Snippet[], home: LoadedHouse): Promise<Renewed[]> {
    const options = { ...this.#options, workplace: this.#workplace };
    const run = audit({ ...this.#asked, ...home, snippets: [...due] }, options);
    const document = await run.document;
    await run.finished;
    this.#latest = document;
    return mapPresent(document.snippets, (after) => {
      const snippet = due.find(({ name }) => name === after.name);
      if (!snippet) return null;
      const before = this.#known.get(after.name)?.report ?? null;
      const notJudged = document.notJudged.filter((one) => one.snippet === after.name);
      this.#known.set(after.name, { report: after, notJudged, hash: hashSnippet(snippet) });
      return { before, after };
    });
  }
}

function hashSnippet({ text, slot, line }: Snippet): string {
  return hashOf(JSON.stringify([text, slot, line]));
}
