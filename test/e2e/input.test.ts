import { afterAll, describe, expect, test } from '@jest/globals';
import { chmodSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { getIds, Workshop } from '../support/program.js';

const shop = new Workshop();
afterAll(() => shop.close());

const SOUND = '<p>Sow beans in May.</p>';
shop.write('sound.html', SOUND);
shop.write('binary.html', new Uint8Array([60, 112, 0, 1, 2, 3]));
shop.write('latin.html', new Uint8Array([60, 112, 62, 0xe9, 60]));
shop.write('empty.html', ' \n ');
shop.write('large.html', 'x'.repeat(10_000_000));
mkdirSync(join(shop.folder, 'nothing'));

const BAD: [string, string[], RegExp][] = [
  ['a file that is not there', ['gone.html'], /gone\.html does not exist/],
  ['a folder without snippets', ['nothing'], /folder nothing has no snippet/],
  ['a pattern that fits nothing', ['*.svg'], /No file fits the pattern/],
  ['a binary file', ['binary.html'], /binary\.html is not text/],
  ['a file that is not UTF-8', ['latin.html'], /latin\.html is not UTF-8/],
  ['an empty file', ['empty.html'], /empty\.html is empty/],
  ['a file of 10 MB', ['large.html'], /large\.html has 10 MB; .* 2 MB at most/],
  ['no input', [], /nothing to audit/],
  ['an unknown slot', ['sound.html', '--slot', 'colunm'], /"colunm".*Did you mean "column"/],
  ['an unknown viewport', ['sound.html', '--viewport', 'phone'], /"phone".*Allowed: phone-320/],
  ['a width that is none', ['sound.html', '--width', 'wide'], /`--width` must be px/],
  ['an unknown finding', ['sound.html', '--only', 'slot-overfow'], /Did you mean "slot-overflow"/],
  [
    'an unknown format',
    ['sound.html', '--format', 'texty'],
    /`--format` must be one of text, json/,
  ],
  ['an unknown option', ['sound.html', '--slott', 'x'], /unknown option '--slott'/],
  ['jobs that are no number', ['sound.html', '--jobs', 'many'], /`--jobs` must be a whole number/],
  [
    'a file to save that has another ending',
    ['sound.html', '--save', 'run.pdf'],
    /`--save` must end on .json/,
  ],
  [
    'a house file that is not there',
    ['sound.html', '--house', 'gone.yaml'],
    /gone\.yaml does not exist/,
  ],
];

describe('bad input', () => {
  test.each(BAD)('%s', async (_name, args, complaint) => {
    const { code, out, err } = await shop.run(['audit', '--markup-only', ...args]);
    expect(code).toBe(2);
    expect(err.replace(/\n/g, ' ')).toMatch(complaint);
    expect(err).not.toMatch(/^\s+at /m);
    expect(out).toBe('');
  });

  test('a file that may not be read, where permissions count', async () => {
    if (process.getuid?.() === 0) return;
    chmodSync(shop.write('locked.html', SOUND), 0o000);
    const { code, err } = await shop.run(['audit', '--markup-only', 'locked.html']);
    expect(code).toBe(2);
    expect(err).toMatch(/locked\.html may not be read: permission denied/);
  });

  test('one bad file among good ones: the others are judged, the bad one is told', async () => {
    const { code, err, document } = await shop.audit(['--markup-only', 'sound.html', 'empty.html']);
    expect(code).toBe(2);
    expect(err).toMatch(/empty\.html is empty/);
    expect(Object.keys(getIds(document))).toEqual(['sound.html']);
  });

  test('no browser where one is named: one sentence with the place looked at, and 3', async () => {
    const { code, err } = await shop.run(['audit', 'sound.html', '--browser', '/nowhere/chrome']);
    expect(code).toBe(3);
    expect(err).toMatch(
      /^mivket: --browser names "\/nowhere\/chrome", .*Looked at: \/nowhere\/chrome\./,
    );
  });

  test('a program that is no browser is said to have failed', async () => {
    const { code, err } = await shop.run(['audit', 'sound.html'], {
      env: { MIVKET_BROWSER: '/bin/false' },
    });
    expect(code).toBe(3);
    expect(err).toMatch(/The browser \/bin\/false did not start/);
  });
});

describe('the markup alone', () => {
  test('is read from standard input, and what it cannot show is said', async () => {
    const { code, document } = await shop.audit(
      ['--markup-only', '-'],
      '<video src="a.mp4" autoplay></video>',
    );
    expect(code).toBe(1);
    const [finding] = document.snippets[0]!.findings;
    expect(finding).toMatchObject({
      id: 'autoplay-with-sound',
      confirmed: false,
      where: { line: 1, column: 20 },
    });
    expect(document.notJudged.map(({ id }) => id)).toContain('page-scrolls-sideways');
  });

  test('without a finding is no all-clear', async () => {
    const { code, document } = await shop.audit(['--markup-only', '--code', SOUND]);
    expect([code, document.verdict]).toEqual([3, 'unsure']);
    const skipped = await shop.audit([
      '--markup-only',
      '--only',
      'picture-without-alt',
      '--code',
      SOUND,
    ]);
    expect([skipped.code, skipped.document.verdict]).toEqual([0, 'clear']);
  });

  test('two files of one name are told apart', async () => {
    shop.write('a/map.html', SOUND);
    shop.write('b/map.html', SOUND);
    const { document } = await shop.audit(['--markup-only', 'a', 'b']);
    expect(document.snippets.map(({ name }) => name)).toEqual(['a/map.html', 'b/map.html']);
  });

  test('control characters of a snippet do not reach the terminal', async () => {
    const { out } = await shop.run([
      'audit',
      '--markup-only',
      '--code',
      '<img src="\u001b[2Jx\u202e.png">',
    ]);
    expect(out).toContain('␛[2J');
    expect(out).not.toMatch(/[\u001b\u202e]/);
  });
});

test('help and version are there, and quick to find', async () => {
  const help = await shop.run(['--help']);
  expect(help.code).toBe(0);
  expect(help.out).toMatch(/audit .*[\s\S]*demo .*[\s\S]*Exit codes: 0 clear, 1 hold/);
  const version = await shop.run(['--version']);
  expect(version.out).toMatch(/^\d+\.\d+\.\d+\n$/);
});

describe('explain', () => {
  test('lists all findings, and tells one from what it means to how it is cured', async () => {
    const list = await shop.run(['explain']);
    expect(list.out.match(/^[■◧□] [a-z-]+ {2,}\S/gm)!.length).toBeGreaterThan(20);
    const some = await shop.run(['explain', 'frame-']);
    expect(
      some.out.match(/^[■◧□] [a-z-]+ {2,}[A-Z]/gm)!.every((line) => / frame-/.test(line)),
    ).toBe(true);
    expect(some.out).toContain('frame-unnamed');
    const one = await shop.run(['explain', 'page-scrolls-sideways']);
    expect(one.out).toMatch(
      /■ blocker[\s\S]*decided [\s\S]*visitors [\s\S]*change [\s\S]*standard [\s\S]*faulty [\s\S]*sound /,
    );
    const none = await shop.run(['explain', 'page-scrols-sideways']);
    expect([none.code, none.err]).toEqual([
      2,
      expect.stringContaining('Did you mean "page-scrolls-sideways"?'),
    ]);
  });
});
