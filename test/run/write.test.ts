import { afterAll, expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { RecordingFile } from '../../dist/src/run/recording-file.js';
import { removeLeft } from '../../dist/src/run/write.js';

const folder = mkdtempSync(join(tmpdir(), 'mivket-write-'));
afterAll(() => rmSync(folder, { recursive: true }));

test('what a killed run was writing goes with the next, and nothing else', async () => {
  const { pid: gone } = spawnSync(process.execPath, ['-e', '0']);
  const left = [`run.har.${gone}-1.tmp-lines`, `run.har.${gone}-2.tmp`];
  const others = [
    `other.har.${gone}-1.tmp`,
    `run.har.${process.pid}-1.tmp-lines`,
    `run.har.${gone}.tmp`,
    'run.har',
  ].sort();
  for (const name of [...left, ...others]) writeFileSync(join(folder, name), '');
  await RecordingFile.open(join(folder, 'run.har'));
  const there = readdirSync(folder).filter((name) => [...left, ...others].includes(name));
  expect(there.sort()).toEqual(others);
  await removeLeft(folder);
  expect(readdirSync(folder)).not.toContain(`other.har.${gone}-1.tmp`);
});
