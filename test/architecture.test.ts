import { describe, expect, test } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { CHECKS } from '../dist/src/checks/index.js';

const SRC = fileURLToPath(new URL('../src', import.meta.url));
const ALLOWED: Record<string, string[]> = {
  core: ['core'],
  checks: ['checks', 'core'],
  formats: ['formats', 'core'],
  render: ['render', 'core'],
  cli: ['cli', 'core', 'checks', 'formats', 'render', '..'],
  'index.ts': ['core', 'checks', 'render'],
};

const files = readdirSync(SRC, { recursive: true, encoding: 'utf8' }).filter(
  (file) => file.endsWith('.ts') && !file.endsWith('.test.ts'),
);

function getImports(file: string): string[] {
  const text = readFileSync(join(SRC, file), 'utf8');
  return [...text.matchAll(/(?:from|import\()\s*'([^']+)'/g)].map((match) => match[1]!);
}

describe('who may import whom', () => {
  test.each(files)('%s', (file) => {
    const part = file.split('/')[0]!;
    const inner = getImports(file).filter((name) => name.startsWith('.'));
    const reached = inner.map(
      (name) => relative(SRC, join(SRC, dirname(file), name)).split('/')[0]!,
    );
    expect(reached.filter((other) => !ALLOWED[part]!.includes(other))).toEqual([]);
  });

  test.each(files.filter((file) => /^(core|checks|formats)\//.test(file)))(
    '%s knows nothing of Node',
    (file) => {
      expect(getImports(file).filter((name) => name.startsWith('node:'))).toEqual([]);
    },
  );
});

test('the list of checks and the folder of checks agree', () => {
  const found = files
    .filter((file) => /^checks\/[^/]+\//.test(file))
    .map((file) => file.replace(/^checks\/(.*)\/(.*)\.ts$/, '$1 $2'));
  expect(found.sort()).toEqual(CHECKS.map(({ subject, id }) => `${subject} ${id}`).sort());
});
