import stringWidth from 'string-width';
import { stringify } from 'yaml';
import { explainCheck, type Check, type Example } from '../core/check.js';
import { flatMap } from '../core/lists.js';
import { compareLevels } from '../core/verdict.js';
import type { Paint } from './paint.js';
import { SHAPES } from './text-grid.js';
import { wrap } from './wrap.js';

const LABEL = 10;

/** All findings, heaviest first, a line each. */
export function formatList(checks: readonly Check[], paint: Paint, width: number): string {
  const sorted = [...checks].sort(
    (a, b) => compareLevels(a.level, b.level) || a.id.localeCompare(b.id),
  );
  const longest = Math.max(...sorted.map(({ id }) => stringWidth(id)));
  const lines = sorted.map(({ id, level, title }) => {
    const indent = ' '.repeat(longest + 4);
    return wrap(
      title,
      width,
      indent,
      `${paint[level](SHAPES[level])} ${paint.strong(id.padEnd(longest))}  `,
    );
  });
  const key = `${SHAPES.blocker} blocker  ${SHAPES.concern} concern  ${SHAPES.advice} advice`;
  return `${lines.join('\n')}\n\n${paint.faint(`${key}    More: mivket explain FINDING`)}\n`;
}

/** One finding: what it means, how it is decided, what a visitor notices, how to cure it, an example of each kind. */
export function formatExplanation(check: Check, paint: Paint, width: number): string {
  const { notices, cures } = explainCheck(check);
  const { faulty, sound } = check.examples;
  const rows: [string, string[]][] = [
    ['decided', [check.decided]],
    ['visitors', notices],
    ['change', cures],
    ['standard', check.standard === null ? [] : [check.standard]],
    ['faulty', faulty.map(formatExample)],
    ['sound', sound.map(formatExample)],
  ];
  const told = flatMap(rows, ([label, several]) =>
    several.map((words, i) =>
      wrap(words, width, ' '.repeat(LABEL), paint.faint((i === 0 ? label : '').padEnd(LABEL))),
    ),
  );
  const head = `${paint.strong(check.id)}  ${paint[check.level](`${SHAPES[check.level]} ${check.level}`)}`;
  return `${head}\n${wrap(`${check.title}.`, width, '')}\n\n${told.join('\n')}\n`;
}

function formatExample({ name, code, under }: Example): string {
  return `${name}: ${code}${under ? ` (house: ${formatUnder(under)})` : ''}`;
}

/** The house that an example needs, as its file would have it, on one line. */
function formatUnder(under: NonNullable<Example['under']>): string {
  return stringify(under, { collectionStyle: 'flow', lineWidth: 0 }).trim();
}

/** All findings as a page of Markdown. */
export function formatFindingsPage(checks: readonly Check[]): string {
  const parts = checks.map((check) => {
    const { notices, cures } = explainCheck(check);
    const standard = check.standard ? `\n- Standard: ${check.standard}` : '';
    const show = (kind: 'faulty' | 'sound') =>
      check.examples[kind]
        .map(({ name, code, under }) => {
          const house = under ? `; house: ${formatUnder(under)}` : '';
          return `<!-- ${kind}: ${name}${house} -->\n${code}`;
        })
        .join('\n');
    return `## \`${check.id}\` (${check.level})

${check.title}.

- How it is decided: ${check.decided}
- Visitors: ${notices.join(' Or: ')}
- Change: ${cures.join(' Or: ')}${standard}

\`\`\`html
${show('faulty')}
${show('sound')}
\`\`\`
`;
  });
  return `# Findings\n\nMade from the checks themselves; \`mivket explain FINDING\` says the same.\n\n${parts.join('\n')}`;
}
