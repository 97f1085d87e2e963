import { comparePictures } from '../core/compare/pictures.js';
import { mapPresent } from '../core/lists.js';
import { listAltered, listDiffering } from '../core/mend/looks.js';
import { readMarkup } from '../core/markup/markup.js';
import { getTraits } from '../core/markup/traits.js';
import { Work, type MendedSnippet, type Proposal } from '../core/mend/work.js';
import type { Reply } from '../core/mend/answers.js';
import type { RunDocument, SnippetReport } from '../core/run.js';
import { audit, type AuditOptions } from './audit.js';
import { inShotFolder, readRasters } from './shots.js';
import { Workplace } from './workplace.js';
import type { AuditRequest } from './request.js';

/** What became of all. */
export interface Mended {
  before: RunDocument;
  snippets: MendedSnippet[];
  /** Answers that nothing asks for. */
  unasked: Reply[];
  /** What broke down when mended snippets were looked at: what was not proven by then was not made. Null: nothing did. */
  fault: unknown;
}

/** How a mending is steered from outside. */
export interface MendOptions extends AuditOptions {
  /** Told when a round of audits begins, from 1, with so many snippets. */
  onRound?: (round: number, snippets: number) => void;
  /** Told what was found before anything is mended; resolves to what a person says of it. */
  ask?: (before: RunDocument) => Promise<readonly Reply[]>;
}

/** So often mended snippets are looked at again: all cures at once, and where that fails one after the other. */
const MOST_ROUNDS = 16;

/**
 * Audits snippets, makes the cures that are certain and those that a person has answered for, and audits what comes of
 * it: a cure that does not cure, brings something as heavy as what it was to cure, or changes how the snippet looks
 * where nothing was wrong is taken back.
 * @throws ToolError as `audit` does, before anything is mended
 */
export function mend(request: AuditRequest, options: MendOptions = {}): Promise<Mended> {
  const own = new Workplace();
  const workplace = options.workplace ?? own;
  const work = (shots: string) => mendIn({ ...request, shots }, { ...options, workplace });
  return inShotFolder(request.shots, work).finally(() => own.close());
}

async function mendIn(
  request: AuditRequest & { shots: string },
  options: MendOptions,
): Promise<Mended> {
  const { onRound, ask, ...steering } = options;
  const look = async (snippets: AuditRequest['snippets'], round: number) => {
    onRound?.(round, snippets.length);
    const run = audit({ ...request, snippets }, steering);
    await run.finished;
    return run.document;
  };
  const before = await look(request.snippets, 1);
  const answers = (await ask?.(before)) ?? [];
  const works = before.snippets.map((report) => new Work(report, groupAnswers(report, answers)));
  let fault: unknown = null;
  for (let round = 2; round <= MOST_ROUNDS && !steering.signal?.aborted; round++) {
    const trials = mapPresent(works, (work) => {
      const trial = work.next();
      return trial && { work, trial };
    });
    if (trials.length === 0) break;
    const lookAt: Look = (texts) =>
      look(
        mapPresent(request.snippets, (one) => {
          const text = texts.get(one.name);
          return text === undefined ? null : { ...one, text };
        }),
        round,
      );
    try {
      await tryAll(trials, lookAt, request.shots);
    } catch (error) {
      fault = error;
      break;
    }
  }
  const unasked = answers.filter((one) => !before.snippets.some((report) => asks(report, one)));
  const snippets: MendedSnippet[] = [];
  for (const work of works) snippets.push(await addPictures(work.toMended(), request.shots));
  return { before, snippets, unasked, fault };
}

async function addPictures(
  mended: Omit<MendedSnippet, 'pictures'>,
  shots: string,
): Promise<MendedSnippet> {
  const { before, after } = mended;
  if (before.text === after.text) return { ...mended, pictures: [] };
  const pictures = await comparePictures([before, after], readRasters(shots));
  return { ...mended, pictures };
}

/** Audits snippets as they are given, but with other texts, by their names. */
type Look = (texts: ReadonlyMap<string, string>) => Promise<RunDocument>;

/** A snippet, and what is tried with it. */
interface Tried {
  work: Work;
  trial: Proposal;
}

/** Looks at what is tried, and lets each snippet take or leave it. */
async function tryAll(trials: readonly Tried[], look: Look, shots: string): Promise<void> {
  const looked = await look(new Map(trials.map(({ work, trial }) => [work.name, trial.text])));
  const seen = mapPresent(trials, ({ work, trial }) => {
    const after = looked.snippets.find(({ name }) => name === work.name);
    if (!after) work.end();
    return after && { work, trial, after };
  });
  const getRaster = readRasters(shots);
  const altered = new Map<Work, string[]>();
  for (const { work, trial, after } of seen) {
    const rows = plays(work.now)
      ? []
      : await comparePictures([work.now, after], getRaster, 'roughly');
    altered.set(work, listAltered(trial.findings, rows));
  }
  // What looks otherwise each time says nothing of a cure.
  const doubtful = seen.filter(({ work }) => altered.get(work)!.length > 0);
  const again =
    doubtful.length > 0
      ? await look(new Map(doubtful.map(({ work }) => [work.name, work.now.text])))
      : null;
  for (const { work, trial, after } of seen) {
    const same = again?.snippets.find(({ name }) => name === work.name);
    const rows = same ? await comparePictures([work.now, same], getRaster, 'roughly') : [];
    const byChance = listDiffering(rows);
    work.take(
      trial,
      after,
      altered.get(work)!.filter((place) => !byChance.includes(place)),
    );
  }
}

/** What plays is caught in another frame each time. */
function plays({ text }: SnippetReport): boolean {
  return getTraits(readMarkup(text)).plays;
}

function groupAnswers(
  report: SnippetReport,
  answers: readonly Reply[],
): Map<string, Reply['text']> {
  const own = answers.filter((one) => asks(report, one));
  return new Map(own.map(({ key, text }) => [key, text]));
}

function asks({ name, findings }: SnippetReport, { snippet, key }: Reply): boolean {
  return name === snippet && findings.some((one) => one.key === key && one.ask !== null);
}
