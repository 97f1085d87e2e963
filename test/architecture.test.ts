import { describe, expect, test } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { CHECKS } from '../src/checks/index.js';
import { FACT_KINDS } from '../src/facts/kinds.js';

const SRC = fileURLToPath(new URL('../src', import.meta.url));

/** What of a kind of fact is pure: its shape, and the list of all. */
const PURE = 'facts/(kind|kinds|file-type|common|\\w+/fact)\\.';

/** Who may import whom, the first line that fits: files, and what they may reach. */
const LAYERS: [file: string, reaches: string][] = [
  [PURE, PURE],
  [
    'facts/(readers|\\w+/(read|way))\\.',
    `facts/\\w+/(read|way)\\.|core/(standards|host/slot-attribute|lists)|${PURE}|render/in-page/`,
  ],
  ['facts/', 'core/|facts/|render/(collect|page|gate)/'],
  ['core/', `core/|${PURE}`],
  ['checks/', 'checks/|core/'],
  ['formats/', `formats/|core/|${PURE}`],
  ['render/in-page/', `render/in-page/|core/|${PURE}`],
  ['render/reader/', `render/(reader|in-page)/|core/|${PURE}|facts/(readers|\\w+/(read|way))\\.`],
  ['render/page/', 'render/(page|in-page|reader)/|core/'],
  ['render/bounds/', 'render/bounds/|core/'],
  ['render/machine/(?!examine)', 'render/machine/|core/'],
  ['render/gate/', 'render/(gate/|bounds/|machine/folder)|core/'],
  ['render/browser/', 'render/(browser|page|bounds|machine)/|core/'],
  [
    'render/chromium/',
    'render/(chromium|page|in-page|reader|gate|bounds)/|render/(browser/version|machine/|page-scripts)|core/',
  ],
  // Where the engine is chosen.
  ['render/drivers\\.', 'render/(chromium/start|page/)|core/'],
  ['render/', 'render/(?!chromium/)|core/|facts/'],
  ['run/', 'run/|core/|checks/|formats/|render/'],
  ['cli/', 'cli/|run/|core/|checks/|formats/|render/machine/|\\.\\./demo'],
  ['index\\.', 'core/|checks/|run/'],
];

const files = readdirSync(SRC, { recursive: true, encoding: 'utf8' }).filter(
  (file) => file.endsWith('.ts') && !/\.(test|d)\.ts$/.test(file),
);

function getImports(file: string): string[] {
  const text = readFileSync(join(SRC, file), 'utf8');
  return [...text.matchAll(/(?:from|import\()\s*'([^']+)'/g)].map((match) => match[1]!);
}

const isWithin = (file: string, pattern: string) => new RegExp(`^(${pattern})`).test(file);

describe('who may import whom', () => {
  test.each(files)('%s', (file) => {
    const reaches = LAYERS.find(([of]) => isWithin(file, of))![1];
    const inner = getImports(file).filter((name) => name.startsWith('.'));
    const reached = inner.map((name) => relative(SRC, join(SRC, dirname(file), name)));
    expect(reached.filter((other) => !isWithin(other, reaches))).toEqual([]);
  });

  test.each(
    files.filter((file) =>
      isWithin(file, `core/|checks/|formats/|render/(in-page|reader)/|${PURE}`),
    ),
  )('%s knows nothing of Node', (file) => {
    expect(getImports(file).filter((name) => name.startsWith('node:'))).toEqual([]);
  });

  test('the protocol is spoken by the engine alone, and needed for building only', () => {
    const speakers = files.filter((file) =>
      getImports(file).some((name) => name.startsWith('devtools-protocol')),
    );
    expect(speakers.filter((file) => !isWithin(file, 'render/chromium/'))).toEqual([]);
    const types = /^import type [^;]*devtools-protocol/gm;
    const all = /^import [^;]*devtools-protocol/gm;
    for (const file of speakers) {
      const text = readFileSync(join(SRC, file), 'utf8');
      expect(text.match(all)).toEqual(text.match(types));
    }
  });
});

test('one name stands for one thing', () => {
  const named = files.flatMap((file) => {
    const text = readFileSync(join(SRC, file), 'utf8');
    const all = text.matchAll(/^export (?:async )?(?:interface|type|class|function) (\w+)\b/gm);
    return [...all].map(([, name]) => ({ name: name!, file }));
  });
  const twice = named.filter(({ name, file }) =>
    named.some((other) => other.name === name && other.file !== file),
  );
  expect(twice).toEqual([]);
});

test('the list of checks and the folder of checks agree', () => {
  const found = files
    .filter((file) => /^checks\/[^/]+\//.test(file))
    .map((file) => file.replace(/^checks\/(.*)\/(.*)\.ts$/, '$1 $2'));
  expect(found.sort()).toEqual(CHECKS.map(({ subject, id }) => `${subject} ${id}`).sort());
});

test('the list of kinds and the folder of facts agree', () => {
  const folders = (name: string) =>
    files.flatMap((file) => new RegExp(`^facts/(\\w+)/${name}\\.ts$`).exec(file)?.[1] ?? []).sort();
  expect(folders('fact')).toEqual([...FACT_KINDS].sort());
  expect(folders('collect')).toEqual([...FACT_KINDS].sort());
});

test('what a check explains is a finding, and no other place names it', () => {
  const ids = CHECKS.map(({ id }) => id);
  const explained = CHECKS.flatMap(({ explains = [] }) => explains.flatMap((one) => one.findings));
  expect(explained.filter((id) => !ids.includes(id))).toEqual([]);
  const others = files.filter((file) => !isWithin(file, 'checks/|core/words/finding-ids'));
  const named = others.flatMap((file) => {
    const text = readFileSync(join(SRC, file), 'utf8');
    return ids.filter((id) => text.includes(`'${id}'`)).map((id) => `${file}: ${id}`);
  });
  expect(named).toEqual([]);
});

/** Imports that are there when the program runs: not those of types alone. */
function getValueImports(file: string): string[] {
  const text = readFileSync(join(SRC, file), 'utf8');
  const statements = text.matchAll(/^(?:import|export)\s([^;]*?)from\s*'(\.[^']+)'/gm);
  return [...statements].flatMap(([, names, from]) => {
    const isType = /^type\b/.test(names!) || isOnlyTypes(names!);
    return isType ? [] : [relative(SRC, join(SRC, dirname(file), from!)).replace(/\.js$/, '.ts')];
  });
}

function isOnlyTypes(names: string): boolean {
  const listed = /\{([^}]*)\}/.exec(names)?.[1];
  if (listed === undefined || /^\s*\w/.test(names)) return false;
  return listed
    .split(',')
    .map((name) => name.trim())
    .filter(Boolean)
    .every((name) => name.startsWith('type '));
}

test('no file needs itself, by whatever way', () => {
  const needs = new Map(files.map((file) => [file, getValueImports(file)]));
  const circles = new Set<string>();
  const done = new Set<string>();
  const visit = (file: string, way: string[]) => {
    const at = way.indexOf(file);
    if (at >= 0) return void circles.add([...way.slice(at), file].join(' → '));
    if (done.has(file)) return;
    for (const next of needs.get(file) ?? []) visit(next, [...way, file]);
    done.add(file);
  };
  for (const file of files) visit(file, []);
  expect([...circles]).toEqual([]);
  expect(needs.get('core/judge/judge.ts')).toContain('core/judge/causes.ts');
});
