import type { PictureRow } from '../compare/pictures.js';
import { flatMap } from '../lists.js';
import { readMarkup } from '../markup/markup.js';
import type { Finding, SnippetReport } from '../run.js';
import type { Edit } from '../snippet.js';
import { counts } from '../verdict.js';
import { toIntents, type Reply } from './answers.js';
import { applyEdits } from './apply.js';
import { composeMend, composeMends } from './compose.js';
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
  /** What it looks like before and after; none where nothing was mended. */
  pictures: PictureRow[];
}

/** A text with cures in it that is to be looked at. */
export interface Proposal {
  text: string;
  /** What they are to cure. */
  findings: Finding[];
  /** Known by this one alone, wherever it stands by now; null: several together. */
  key: string | null;
  of: Source;
}

/** Answers of a person come first: they are known by the text as it was when they were asked. */
type Source = 'answers' | 'certain';

/** A cure that could be made. */
interface Cure {
  findings: Finding[];
  edits: Edit[];
  key: string;
}

/** Those of one source, and the text with all of them; null where they do not go together. */
interface Cures {
  all: Cure[];
  together: string | null;
}

/** One snippet that is being mended. */
export class Work {
  readonly #before: SnippetReport;
  readonly #answers: ReadonlyMap<string, Reply['text']>;
  #now: SnippetReport;
  /** Cures of one source are made at once, as long as that goes well. */
  #whole = new Set<Source>(['answers', 'certain']);
  #ended = false;
  #refused = new Set<string>();
  #cured: Finding[] = [];
  #takenBack: TakenBack[] = [];

  /** @param answers by the keys of findings */
  constructor(report: SnippetReport, answers: ReadonlyMap<string, Reply['text']> = new Map()) {
    this.#before = report;
    this.#now = report;
    this.#answers = answers;
  }

  get name(): string {
    return this.#before.name;
  }

  /** As it was looked at last and proven. */
  get now(): SnippetReport {
    return this.#now;
  }

  /** What to look at next; null where there is nothing left to mend. */
  next(): Proposal | null {
    if (this.#ended) return null;
    return (
      this.#nextOf('answers', this.#findAnswered()) ?? this.#nextOf('certain', this.#findCertain())
    );
  }

  #nextOf(of: Source, { all, together }: Cures): Proposal | null {
    const open = all.filter(({ key }) => !this.#refused.has(key));
    const [first] = open;
    if (!first) return null;
    const { text } = this.#now;
    const isWhole = this.#whole.has(of) && open.length === all.length;
    if (isWhole && together !== null && together !== text)
      return {
        ...{ text: together, of, findings: flatMap(open, ({ findings }) => findings) },
        key: open.length > 1 ? null : first.key,
      };
    return { text: applyEdits(text, first.edits), of, findings: first.findings, key: first.key };
  }

  #findAnswered(): Cures {
    const { text, findings } = this.#now;
    const said = flatMap(findings, (finding) => {
      const reply = this.#answers.get(finding.key);
      const intents = reply === undefined ? null : toIntents(finding, reply);
      return intents ? [{ finding, intents }] : [];
    });
    if (said.length === 0) return { all: [], together: null };
    const markup = readMarkup(text);
    const all = flatMap(said, ({ finding, intents }) => {
      const edits = composeMend(markup, intents);
      return edits ? [{ findings: [finding], edits, key: finding.key }] : [];
    });
    const { edits, taken } = composeMends(
      markup,
      said.map(({ intents }) => intents),
    );
    return { all, together: taken.every(Boolean) ? applyEdits(text, edits) : null };
  }

  /** Not what somebody accepts as it is. */
  #findCertain(): Cures {
    const { causes, findings, mended } = this.#now;
    const all = flatMap(causes, ({ number, mend, cures }) => {
      const own = findings.filter((one) => one.cause === number);
      if (mend === null || !own.some(counts)) return [];
      const cured = own.filter(({ id }) => cures.includes(id));
      return [{ findings: cured, edits: mend, key: own.map(({ key }) => key).join() }];
    });
    return { all, together: mended };
  }

  /** It could not be looked at: it stays as it was proven last. */
  end(): void {
    this.#ended = true;
  }

  /** What came of it. @param altered where it looks otherwise without need */
  take(
    { findings, key, of }: Proposal,
    after: SnippetReport,
    altered: readonly string[] = [],
  ): void {
    const proof = proveCures(this.#now, findings, after, altered);
    if (isProven(proof)) {
      this.#cured.push(...findings);
      this.#now = after;
    } else if (key === null) this.#whole.delete(of);
    else {
      this.#refused.add(key);
      this.#takenBack.push({ findings, proof });
    }
  }

  toMended(): Omit<MendedSnippet, 'pictures'> {
    return {
      ...{ before: this.#before, after: this.#now },
      ...{ cured: this.#cured, takenBack: this.#takenBack },
    };
  }
}
