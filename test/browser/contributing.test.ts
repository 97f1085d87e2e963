import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { transform } from 'esbuild';
import { CHECKS } from '../../dist/src/checks/index.js';
import type { Check } from '../../dist/src/core/check.js';
import { openLive, type Live } from '../support/live.js';
import { judgeRecorded } from '../support/recorded.js';

const ROOT = fileURLToPath(new URL('../..', import.meta.url));
const folder = mkdtempSync(join(tmpdir(), 'mivket-contributing-'));
let live: Live;

beforeAll(async () => {
  live = await openLive();
});

afterAll(async () => {
  await live.close();
  rmSync(folder, { recursive: true });
});

test('the check that CONTRIBUTING shows is whole: it finds the faulty, and nothing in the sound', async () => {
  const text = readFileSync(join(ROOT, 'CONTRIBUTING.md'), 'utf8');
  const written = /```ts\n([\s\S]*?)```/.exec(text)![1]!;
  const placed = written.replaceAll("'../../", `'${join(ROOT, 'dist/src')}/`);
  const { code } = await transform(placed, { loader: 'ts' });
  const file = join(folder, 'check.mjs');
  writeFileSync(file, code);
  const { default: check } = (await import(file)) as { default: Check };
  const checks = [...CHECKS, check];
  for (const [kind, ids] of [
    ['faulty', [check.id]],
    ['sound', []],
  ] as const) {
    for (const example of check.examples[kind]) {
      const recorded = await live.render(example.code);
      expect(judgeRecorded(recorded, checks).map(({ id }) => id)).toEqual(ids);
    }
  }
});
