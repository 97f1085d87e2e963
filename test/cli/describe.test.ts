import { describe, expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { describeProgram } from '../../dist/src/cli/describe.js';
import { makeProgram } from '../../dist/src/cli/program.js';
import type { World } from '../../dist/src/cli/streams.js';
import { CHECKS } from '../../dist/src/checks/index.js';
import { formatBash, formatFish, formatZsh } from '../../dist/src/formats/completion.js';
import { formatManual } from '../../dist/src/formats/manual.js';

const silent = { write: () => undefined };
const world = {
  stdin: null,
  stdout: silent,
  stderr: silent,
  env: {},
  cwd: '/',
} as unknown as World;
const about = describeProgram(makeProgram(world, { code: 0 }));

/** What bash offers for a line of words, the last of which is begun. */
function complete(...words: string[]): string[] {
  const script = `${formatBash(about)}
COMP_WORDS=("$@"); COMP_CWORD=$(( $# - 1 )); _mivket; printf '%s\\n' "\${COMPREPLY[@]}"`;
  const { stdout, stderr } = spawnSync('bash', ['-c', script, 'bash', 'mivket', ...words], {
    encoding: 'utf8',
  });
  expect(stderr).toBe('');
  return stdout.split('\n').filter(Boolean);
}

describe('completion', () => {
  test.each<[string[], string[]]>([
    [['com'], ['compare']],
    [['audit', '--outa'], ['--outage']],
    [
      ['audit', '--format', 'j'],
      ['json', 'jsonl', 'junit'],
    ],
    [['mend', '--format', 'j'], ['json']],
    [
      ['judge', 'run', '--hold-on', ''],
      ['blocker', 'concern', 'advice'],
    ],
    [['audit', '--insert', 's'], ['shadow']],
    [['explain', 'frame-u'], ['frame-unnamed']],
    [['audit', '--house', '--'], []],
    [['audit', 'a'], []],
    [['nothing', '--'], []],
  ])('bash, after %j: %j', (words, offered) => {
    expect(complete(...words)).toEqual(offered);
  });

  test('of findings has all of them', () => {
    expect(complete('audit', '--skip', '')).toHaveLength(CHECKS.length);
  });

  test.each([
    ['zsh', formatZsh(about)],
    ['fish', formatFish(about)],
  ])('for %s has all commands and options', (_shell, script) => {
    for (const { name, options } of about.commands) {
      expect(script).toContain(name);
      for (const { long } of options) expect(script).toContain(long.slice(2));
    }
  });
});

test('the manual has all commands and options, and no line is a request by chance', () => {
  const manual = formatManual(about);
  for (const { name, options } of about.commands) {
    expect(manual).toContain(`\n.SS mivket ${name}`);
    for (const { flags } of options)
      expect(manual).toContain(`.B ${flags.replaceAll('-', '\\-')}\n`);
  }
  const requests = manual.match(/^[.'][^ \n]*/gm)!;
  expect([...new Set(requests)].sort()).toEqual([
    '.B',
    '.BR',
    '.I',
    '.SH',
    '.SS',
    '.TH',
    '.TP',
    '.\\"',
  ]);
});
