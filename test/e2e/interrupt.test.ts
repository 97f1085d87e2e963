import { afterAll, afterEach, beforeEach, expect, test } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { findProcesses } from '../support/processes.js';
import { getIds, Workshop } from '../support/program.js';
import type { RunDocument } from '../../dist/src/core/run.js';

const shop = new Workshop();
let slow: Server;
let asked: Promise<void>;

beforeEach(async () => {
  // Asked for, and never answered: the second snippet is then under way for certain.
  asked = new Promise<void>((resolve) => (slow = createServer(() => resolve())));
  await new Promise<void>((resolve) => slow.listen(0, '127.0.0.1', resolve));
  const { port } = slow.address() as AddressInfo;
  shop.write(
    'mivket.yaml',
    `viewports: [{ name: phone, width: 390 }]\nreroute: { "slow.loam.example": "http://127.0.0.1:${port}" }`,
  );
  shop.write('in/1.html', '<img src="x.png">');
  shop.write('in/2.html', '<script src="https://slow.loam.example/never.js"></script>');
});

afterEach(() => {
  slow.closeAllConnections();
  slow.close();
});

afterAll(() => shop.close());

test.each(['SIGINT', 'SIGTERM', 'SIGHUP'] as const)(
  '%s reports and saves what is finished, and leaves nothing behind',
  async (signal) => {
    const out = ['--save', `${signal}/a.html`, '--save', `${signal}/a.png`];
    const kept = ['--keep', `${signal}/kept`, '--record', `${signal}/a.har`];
    const args = ['audit', 'in', '--format', 'json', '--jobs', '1', ...out, ...kept];
    const { child, done } = shop.start(args);
    await asked;
    child.kill(signal);
    const outcome = await done;
    expect(outcome.code).toBe(130);
    expect(outcome.err).toMatch(/Interrupted: 1 of 2 snippets are finished and reported/);
    const document = JSON.parse(outcome.out) as RunDocument;
    expect(Object.keys(getIds(document))).toEqual(['1.html']);
    expect(document.verdict).toBe('hold');
    const files = readdirSync(join(shop.folder, signal)).sort();
    expect(files).toEqual(['a.har', 'a.html', 'a.png', 'kept']);
    const har = JSON.parse(readFileSync(join(shop.folder, signal, 'a.har'), 'utf8')) as {
      log: { entries: { request: { url: string } }[] };
    };
    expect(har.log.entries.map(({ request }) => request.url)).toContain(
      'https://slow.loam.example/never.js',
    );
    const again = await shop.run(['judge', `${signal}/kept`, '--format', 'json']);
    expect(Object.keys(getIds(JSON.parse(again.out) as RunDocument))).toEqual(['1.html']);
    expect(readdirSync(shop.temporary)).toEqual([]);
    expect(findProcesses(shop.temporary)).toEqual([]);
  },
);

test('killed outright, it takes its browser along, and the next run removes what is left', async () => {
  const { child, done } = shop.start(['audit', 'in', '--jobs', '1']);
  await asked;
  child.kill('SIGKILL');
  await done;
  const end = Date.now() + 20_000;
  while (findProcesses(shop.temporary).length > 0 && Date.now() < end)
    await new Promise((resolve) => setTimeout(resolve, 50));
  expect(findProcesses(shop.temporary)).toEqual([]);
  expect(readdirSync(shop.temporary).length).toBeGreaterThan(0);
  await shop.run(['audit', '--code', '<p>x</p>']);
  expect(readdirSync(shop.temporary)).toEqual([]);
});

test.each([[[]], [['--markup-only']]])(
  'Ctrl-C while a page is fetched ends in good order %j',
  async (more: string[]) => {
    const args = ['audit', 'https://slow.loam.example/', '--format', 'json', ...more];
    const { child, done } = shop.start(args);
    await asked;
    child.kill('SIGINT');
    const { code, out, err } = await done;
    expect(code).toBe(130);
    expect(err).toMatch(/Interrupted: 0 of 1 snippets are finished and reported/);
    expect((JSON.parse(out) as RunDocument).snippets).toEqual([]);
    expect(readdirSync(shop.temporary)).toEqual([]);
  },
);
