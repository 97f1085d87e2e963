import { afterAll, expect, test } from '@jest/globals';
import { chmodSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startBrowser } from '../../src/render/chromium/start.js';
import { findProcesses } from '../support/processes.js';

const folder = mkdtempSync(join(tmpdir(), 'mivket-start-'));
afterAll(() => rmSync(folder, { recursive: true }));

test('a browser that starts and says nothing is given up, and nothing of it is left', async () => {
  const path = join(folder, 'silent');
  writeFileSync(path, '#!/bin/sh\nexec sleep 600\n');
  chmodSync(path, 0o755);
  const program = { path, origin: 'given' as const, env: {}, major: 147 };
  await expect(startBrowser(program, { spki: '', language: 'en-US', limit: 200 })).rejects.toThrow(
    /silent did not start: it said nothing for 0\.2 s/,
  );
  expect(findProcesses(folder)).toEqual([]);
  expect(
    readdirSync(tmpdir()).filter((name) => name.startsWith(`mivket-profile-${process.pid}-`)),
  ).toEqual([]);
});
