import { formatMinute } from '../core/words/time.js';
import type { ChangedSnippet, RunComparison } from '../core/compare/runs.js';
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

function tellRun({ name, startedAt, verdict, snippets }: RunComparison['before']): string {
  const when = startedAt ? `${formatMinute(startedAt)}  ` : '';
  return `${cleanLine(name)}  ${when}${countWords(snippets, 'snippet')}  ${verdict.toUpperCase()}`;
}

function formatChanged(one: ChangedSnippet, { paint, width }: ComparedMeans): string {
  const verdicts = [one.before, one.after].map((verdict) => verdict.toUpperCase());
  const verdict = one.before === one.after ? verdicts[0]! : verdicts.join(' → ');
  const rewritten = one.rewritten ? '' : '  (the same text)';
  const list = (what: string, found: ChangedSnippet['new']) =>
    found.map(({ id, level, brief }) =>
      wrap(
        cleanLine(`${SHAPES[level]} ${id}: ${brief}`),
        width,
        ' '.repeat(INDENT),
        `    ${what.padEnd(INDENT - 4)}`,
      ),
    );
  return [
    `  ${paint.strong(cleanLine(one.name))}  ${verdict}${rewritten}`,
    ...list('new', one.new),
    ...list('heavier', one.heavier),
    ...list('lighter', one.lighter),
    ...list('gone', one.gone),
    ...one.unseen.map((why) =>
      wrap(cleanLine(why), width, ' '.repeat(INDENT), `    ${'not seen'.padEnd(INDENT - 4)}`),
    ),
  ].join('\n');
}

const INDENT = 14;
