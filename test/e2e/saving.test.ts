import { afterAll, expect, test } from '@jest/globals';
import { chmodSync, existsSync, mkdirSync, openSync, readFileSync, symlinkSync } from 'node:fs';
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import type { RunDocument } from '../../dist/src/core/run.js';
import { getIds, PROGRAM, Workshop } from '../support/program.js';

const shop = new Workshop();
afterAll(() => shop.close());

const CODE = ['--code', '<p>Sow beans in May.</p>'];
mkdirSync(join(shop.folder, 'folder.json'));

test.each([
  [
    'a folder in its place',
    ['--save', 'folder.json'],
    /folder\.json could not be written: it is a folder/,
  ],
  [
    'a place in no file system',
    ['--save', '/proc/none/run.json'],
    /\/proc\/none\/run\.json could not be written/,
  ],
  ['the same for pictures', ['--pictures', '/proc/none'], /could not be written/],
  ['the same for a kept run', ['--keep', '/proc/none'], /could not be written/],
])(
  'a target that cannot be is told before anything is rendered: %s',
  async (_name, args, words) => {
    const { code, out, err } = await shop.run(['audit', ...CODE, ...args]);
    expect(err.replaceAll('\n', ' ')).toMatch(words);
    expect([code, out]).toEqual([2, '']);
  },
);

test('a target that fails at the end costs neither the report nor the others', async () => {
  // Files may have one kilobyte, and the report has more.
  const audit = [PROGRAM, 'audit', '--markup-only', ...CODE, '--format', 'json'];
  const script = 'ulimit -f 1; exec "$@"';
  const args = ['-c', script, 'bash', process.execPath, ...audit, '--save', 'large.json'];
  const { out, err, code } = await shop.launch('bash', args).done;
  expect((JSON.parse(out) as RunDocument).snippets).toHaveLength(1);
  expect(code).toBe(2);
  expect(err).toMatch(/large\.json could not be written: files may not be that large there/);
  expect(existsSync(join(shop.folder, 'large.json'))).toBe(false);
});

test('an output that takes nothing is no success', async () => {
  const output = openSync('/dev/full', 'w');
  const child = spawn(
    process.execPath,
    [PROGRAM, 'audit', '--markup-only', ...CODE, '--save', 'kept.json'],
    {
      cwd: shop.folder,
      env: { ...process.env, TMPDIR: shop.temporary },
      stdio: ['ignore', output, 'pipe'],
    },
  );
  let err = '';
  child.stderr!.on('data', (chunk: Buffer) => (err += chunk.toString()));
  const code = await new Promise((resolve) => child.on('close', resolve));
  expect(err).toMatch(/^mivket: The output could not be written: no room is left\./);
  expect(code).toBe(2);
  expect(readFileSync(join(shop.folder, 'kept.json'), 'utf8')).toMatch(/"verdict": "unsure"/);
});

test('a temporary folder that is not there is one sentence', async () => {
  const { code, err, out } = await shop.run(['audit', ...CODE], { env: { TMPDIR: '/nowhere' } });
  expect(err).toMatch(
    /^mivket: The temporary folder \/nowhere cannot be used: there is no such place\./,
  );
  expect([code, out]).toEqual([2, '']);
});

test('a browser that says nothing is not waited for for ever, nor is one that ends', async () => {
  const silent = shop.write(
    'silent.sh',
    '#!/bin/sh\ncase "$*" in *--version*) echo Chromium 147.0;; *) exit 7;; esac\n',
  );
  chmodSync(silent, 0o755);
  const { code, err } = await shop.run(['audit', ...CODE, '--browser', silent]);
  expect(err).toMatch(/silent\.sh did not start: it ended with code 7/);
  expect(code).toBe(3);
});

test('a file that is given twice, by whatever name, is audited once', async () => {
  shop.write('in/beans.html', '<p>Beans</p>');
  symlinkSync(join(shop.folder, 'in/beans.html'), join(shop.folder, 'link.html'));
  const args = [
    '--markup-only',
    'in/beans.html',
    './in/beans.html',
    'in',
    'in/*.html',
    'link.html',
  ];
  const { document } = await shop.audit(args);
  expect(Object.keys(getIds(document))).toEqual(['beans.html']);
});

test('names and messages with control characters reach nobody as such', async () => {
  const name = 'b\u001b[2J\u009b\u200b.html';
  shop.write(name, '<img>');
  shop.write(`empty\u001b[2J.html`, '');
  const json = await shop.run([
    'audit',
    '--markup-only',
    '--format',
    'json',
    name,
    'empty\u001b[2J.html',
  ]);
  expect(json.out + json.err).not.toMatch(/[\u001b\u009b\u200b]/);
  expect((JSON.parse(json.out) as RunDocument).snippets[0]!.name).toBe(name);
  const text = await shop.run(['audit', '--markup-only', name, 'gone\u001b.html']);
  expect(text.out + text.err).not.toMatch(/[\u001b\u009b\u200b]/);
  expect(text.out).toContain('[zero width space]');
});

test('what only reads the markup needs no browser', async () => {
  const env = { MIVKET_BROWSER: '/nowhere' };
  const { code, out } = await shop.run(
    ['audit', '--code', '<img alt="photo.jpg" src="x.png">', '--only', 'alt-says-nothing'],
    { env },
  );
  expect(out).toMatch(/alt-says-nothing/);
  expect(code).toBe(0);
});
