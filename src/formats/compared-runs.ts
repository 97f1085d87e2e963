import { formatMinute } from '../core/words/time.js';
import type { ChangedSnippet, RunComparison } from '../core/compare/runs.js';
import { nameWindows } from '../core/compare/pictures.js';
import { flatMap } from '../core/lists.js';
import { countWords } from '../core/words/list.js';
import { cleanLine } from './clean.js';
import type { ComparedMeans } from './compared.js';
import { SHAPES } from './text-grid.js';
import { wrap } from './wrap.js';

/** What is new, gone and otherwise in the second of two runs. */
export function formatRunComparison(comparison: RunComparison, means: ComparedMeans): string {
  const { before, after, gone, changed, same } = comparison;
  const { paint } = means;
  const lines = [
    `  ${tellRun(before)}`,
    `  ${tellRun(after)}`,
    '',
    ...changed.map((one) => formatChanged(one, means)),
    ...comparison.new.map(
      ({ name, verdict }) => `  ${paint.strong(cleanLine(name))}  new  ${verdict.toUpperCase()}`,
    ),
    ...gone.map((name) => `  ${paint.strong(cleanLine(name))}  gone`),
    `  ${countWords(same, 'snippet')} as before.`,
  ];
  return `${lines.join('\n')}\n`;
}

/** What it is called, when it was, and what came of it. */
export function tellRun({ name, startedAt, verdict, snippets }: RunComparison['before']): string {
  const when = startedAt ? `${formatMinute(startedAt)}  ` : '';
  return `${cleanLine(name)}  ${when}${countWords(snippets, 'snippet')}  ${verdict.toUpperCase()}`;
}

/** What became of the verdict, and whether the text is another. */
export function tellVerdicts({ before, after, rewritten }: ChangedSnippet): string {
  const verdicts = [before, after].map((verdict) => verdict.toUpperCase());
  const verdict = before === after ? verdicts[0]! : verdicts.join(' → ');
  return rewritten ? verdict : `${verdict}  (the same text)`;
}

/** What was found, by what became of it. */
export function listFound(one: ChangedSnippet): [what: string, found: ChangedSnippet['new']][] {
  const all: [string, ChangedSnippet['new']][] = [
    ['new', one.new],
    ['heavier', one.heavier],
    ['lighter', one.lighter],
    ['gone', one.gone],
  ];
  return all.filter(([, found]) => found.length > 0);
}

function formatChanged(one: ChangedSnippet, { paint, width }: ComparedMeans): string {
  const looks = nameWindows(one.pictures);
  const say = (what: string, words: string) =>
    wrap(cleanLine(words), width, ' '.repeat(INDENT), `    ${what.padEnd(INDENT - 4)}`);
  const list = (what: string, found: ChangedSnippet['new']) =>
    found.map(({ id, level, brief }) => say(what, `${SHAPES[level]} ${id}: ${brief}`));
  return [
    `  ${paint.strong(cleanLine(one.name))}  ${tellVerdicts(one)}`,
    ...flatMap(listFound(one), ([what, found]) => list(what, found)),
    ...(looks === '' ? [] : [say('looks', `otherwise in ${looks}`)]),
    ...one.unseen.map((why) => say('not seen', why)),
  ].join('\n');
}

const INDENT = 14;
