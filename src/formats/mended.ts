import { createTwoFilesPatch } from 'diff';
import { flatMap } from '../core/lists.js';
import type { MendDocument } from '../core/mend/document.js';
import { isAsking } from '../core/mend/questions.js';
import type { Proof } from '../core/mend/proof.js';
import type { MendedSnippet } from '../core/mend/work.js';
import type { Finding, SnippetReport } from '../core/run.js';
import { joinWords, countWords } from '../core/words/list.js';
import { getOverall } from '../core/verdict.js';
import { clean, cleanLine } from './clean.js';
import { formatJson } from './json.js';
import type { Paint } from './paint.js';
import { wrap } from './wrap.js';

/** What the text needs besides. */
export interface MendedOptions {
  paint: Paint;
  /** Columns there are. */
  width: number;
  /** It goes to a terminal, which is to obey no character of a snippet. */
  terminal: boolean;
}

/** For each snippet what was cured, what was taken back and what is left, with the change as a unified diff. */
export function formatMended(all: readonly MendedSnippet[], options: MendedOptions): string {
  return all.map((one) => formatOne(one, options)).join('\n');
}

function formatOne(one: MendedSnippet, options: MendedOptions): string {
  const { before, after } = one;
  const { paint, width } = options;
  const lines = [
    `${paint.strong(cleanLine(before.name))}  ${nameVerdicts(one)}`,
    ...listOutcome(one).map(([what, words]) =>
      wrap(cleanLine(words), width, ' '.repeat(INDENT), `  ${what.padEnd(INDENT - 2)}`),
    ),
  ];
  const patch = formatPatch(before, after, options);
  return `${[...lines, ...(patch ? ['', patch] : [])].join('\n')}\n`;
}

/** The verdict before and after; one where it is the same. */
export function nameVerdicts({ before, after }: MendedSnippet): string {
  const verdicts = [before, after].map(({ verdict }) => verdict.toUpperCase());
  return [...new Set(verdicts)].join(' → ');
}

const INDENT = 14;

/** What became of it: what kind of thing, and the words. */
export function listOutcome({ after, cured, takenBack }: MendedSnippet): [string, string][] {
  const [gap] = after.gaps;
  const left = after.findings.filter(
    (one) => !takenBack.some(({ findings }) => findings.some((other) => isSame(one, other))),
  );
  return [
    ...(cured.length > 0 ? [['cured', nameAll(cured)] as [string, string]] : []),
    ...takenBack.map(({ findings, proof }): [string, string] => [
      'taken back',
      `${nameAll(findings)}: ${explain(proof)}`,
    ]),
    ...(left.length > 0 ? [['left', nameAll(left)] as [string, string]] : []),
    ...(gap ? [['not seen', gap.why] as [string, string]] : []),
  ];
}

/** Known by another key where its tag has changed since. */
function isSame(a: Finding, b: Finding): boolean {
  return a.key === b.key || (a.id === b.id && a.where.line === b.where.line);
}

function explain({ stayed, brought, altered, unseen }: Proof): string {
  if (brought.length > 0) return `with the cure comes ${nameAll(brought)}`;
  if (stayed.length > 0) return 'the cure does not cure it';
  if (altered.length > 0)
    return `with the cure it looks otherwise in ${joinWords(altered)}, where nothing was wrong`;
  return `whether the cure helps could not be seen (${unseen})`;
}

/** Each kind once, with its lines. */
function nameAll(findings: readonly Finding[]): string {
  const kinds = new Map<string, Set<number>>();
  for (const { id, where } of findings) kinds.set(id, (kinds.get(id) ?? new Set()).add(where.line));
  return [...kinds].map(([id, lines]) => `${id} (${nameLines([...lines])})`).join(', ');
}

function nameLines(lines: readonly number[]): string {
  return `${lines.length > 1 ? 'lines' : 'line'} ${joinWords(lines.map(String))}`;
}

/** The change as a unified diff; null where nothing was changed. */
export function makePatch(
  { path, name: own, text }: SnippetReport,
  after: SnippetReport,
): string | null {
  if (text === after.text) return null;
  const name = path === null || path.endsWith(own) ? (path ?? own) : `${path} (${own})`;
  const patch = createTwoFilesPatch(name, name, text, after.text, '', '', { context: 3 });
  return patch.replace(/^(Index: .*\n)?=+\n/, '');
}

/** '' where nothing was changed. */
function formatPatch(
  before: SnippetReport,
  after: SnippetReport,
  { paint, terminal }: MendedOptions,
): string {
  const lines = makePatch(before, after)?.trimEnd().split('\n') ?? [];
  return flatMap(lines, (line) => {
    const shown = terminal ? clean(line) : line;
    if (/^[+](?!\+\+ )/.test(line)) return [paint.sound(shown)];
    return [/^-(?!-- )/.test(line) ? paint.blocker(shown) : shown];
  }).join('\n');
}

/** All of it as JSON, with a line break at the end. */
export function formatMendedJson(
  all: readonly MendedSnippet[],
  { tool, startedAt }: Pick<MendDocument, 'tool' | 'startedAt'>,
): string {
  const document: MendDocument = {
    schema: 'mivket-mend-1',
    ...{ tool, startedAt },
    verdict: getOverall(all.map(({ after }) => after.verdict)),
    snippets: all.map(({ before, after, cured, takenBack, pictures }) => ({
      ...{ name: before.name, path: before.path },
      ...{ before: before.verdict, after: after.verdict, cured },
      takenBack: takenBack.map(({ findings, proof }) => ({ findings, why: explain(proof) })),
      left: after.findings,
      unseen: [...new Set(after.gaps.map(({ why }) => why))],
      text: after.text,
      patch: makePatch(before, after),
      pictures,
    })),
  };
  return formatJson(document);
}

/** What it came to, in a sentence. */
export function describeMended(all: readonly MendedSnippet[]): string {
  const mended = all.filter(({ before, after }) => before.text !== after.text).length;
  if (mended === 0) return 'There is nothing that can be mended with certainty.';
  const cured = all.reduce((sum, one) => sum + one.cured.length, 0);
  return `${countWords(cured, 'finding')} cured in ${mended} of ${countWords(all.length, 'snippet')}, each change looked at in the page.`;
}

/** The same, and how what only a person can say is asked for. */
export function formatMendedEnd(all: readonly MendedSnippet[]): string {
  const open = flatMap(all, ({ after }) => after.findings).filter(isAsking);
  const asks =
    open.length > 0
      ? `\n${countWords(open.length, 'finding')} would take words of yours: --ask asks for them here, --questions FILE writes down what is to be said.`
      : '';
  return `${describeMended(all)}${asks}`;
}
