import type { Cause, Finding, SnippetReport } from '../run.js';
import { counts } from '../verdict.js';
import { applyEdits } from './apply.js';
import { isProven, proveCures, type Proof } from './proof.js';

/** A cure that was made, looked at, and taken back. */
export interface TakenBack {
  /** What it was to cure. */
  findings: Finding[];
  /** What became of it. */
  proof: Proof;
}

/** What became of a snippet. */
export interface MendedSnippet {
  before: SnippetReport;
  /** Of the text as it is in the end: that before, where nothing was mended. */
  after: SnippetReport;
  cured: Finding[];
  takenBack: TakenBack[];
}

/** A text with cures in it that is to be looked at. */
export interface Proposal {
  text: string;
  causes: Cause[];
}

/** One snippet that is being mended. */
export class Work {
  readonly #before: SnippetReport;
  #now: SnippetReport;
  /** All cures are made at once, as long as that goes well. */
  #whole = true;
  #ended = false;
  #refused = new Set<string>();
  #cured: Finding[] = [];
  #takenBack: TakenBack[] = [];

  constructor(report: SnippetReport) {
    this.#before = report;
    this.#now = report;
  }

  get name(): string {
    return this.#before.name;
  }

  /** What to look at next; null where there is nothing left to mend. */
  next(): Proposal | null {
    const { causes, text, mended } = this.#now;
    const certain = causes.filter((one) => one.mend !== null);
    const open = certain.filter((one) => this.#isWanted(one));
    const [first] = open;
    if (!first || this.#ended) return null;
    if (this.#whole && open.length === certain.length && mended !== null && mended !== text)
      return { text: mended, causes: open };
    return { text: applyEdits(text, first.mend!), causes: [first] };
  }

  /** It could not be looked at: it stays as it was proven last. */
  end(): void {
    this.#ended = true;
  }

  /** Not what somebody accepts as it is, nor what was taken back before. */
  #isWanted(cause: Cause): boolean {
    const own = this.#now.findings.filter((one) => one.cause === cause.number);
    return own.some(counts) && !this.#refused.has(this.#getKey(cause));
  }

  /** What came of it. */
  take({ causes }: Proposal, after: SnippetReport): void {
    const proof = proveCures(this.#now, causes, after);
    if (isProven(proof)) {
      this.#cured.push(...proof.cured);
      this.#now = after;
    } else if (causes.length > 1) this.#whole = false;
    else {
      this.#refused.add(this.#getKey(causes[0]!));
      this.#takenBack.push({ findings: proof.cured, proof });
    }
  }

  /** A cause is known by what it brings about, wherever that stands by now. */
  #getKey({ number }: Cause): string {
    const own = this.#now.findings.filter(({ cause }) => cause === number);
    return own.map(({ key }) => key).join();
  }

  toMended(): MendedSnippet {
    return {
      ...{ before: this.#before, after: this.#now },
      ...{ cured: this.#cured, takenBack: this.#takenBack },
    };
  }
}
