import { flatMap } from '../core/lists.js';
import { Work, type MendedSnippet } from '../core/mend/work.js';
import type { Reply } from '../core/mend/answers.js';
import type { RunDocument, SnippetReport } from '../core/run.js';
import { audit, type AuditOptions } from './audit.js';
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
 * it: a cure that does not cure, or brings something as heavy as what it was to cure, is taken back.
 * @throws ToolError as `audit` does, before anything is mended
 */
export async function mend(request: AuditRequest, options: MendOptions = {}): Promise<Mended> {
  const { onRound, ask, ...steering } = options;
  const look = async (snippets: AuditRequest['snippets'], round: number) => {
    onRound?.(round, snippets.length);
    const run = audit({ ...request, snippets }, steering);
    await run.finished;
    return run.document;
  };
  const before = await look(request.snippets, 1);
  const given = new Map(request.snippets.map((one) => [one.name, one]));
  const answers = (await ask?.(before)) ?? [];
  const works = before.snippets.map((report) => new Work(report, groupAnswers(report, answers)));
  let fault: unknown = null;
  for (let round = 2; round <= MOST_ROUNDS && !steering.signal?.aborted; round++) {
    const trials = flatMap(works, (work) => {
      const trial = work.next();
      return trial ? [{ work, trial }] : [];
    });
    if (trials.length === 0) break;
    const texts = trials.map(({ work, trial }) => ({
      ...given.get(work.name)!,
      text: trial.text,
    }));
    const looked = await look(texts, round).catch((error: unknown) => void (fault = error));
    if (!looked) break;
    for (const { work, trial } of trials) {
      const after = looked.snippets.find(({ name }) => name === work.name);
      if (after) work.take(trial, after);
      else work.end();
    }
  }
  const unasked = answers.filter((one) => !before.snippets.some((report) => asks(report, one)));
  return { before, snippets: works.map((work) => work.toMended()), unasked, fault };
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
