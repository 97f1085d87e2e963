import { afterAll, expect, test } from '@jest/globals';
import { chmodSync, existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { RunDocument } from '../../dist/src/core/run.js';
import { Workshop } from '../support/program.js';

const shop = new Workshop();
afterAll(() => shop.close());

const WIDE = '<p>Sow</p><div style="width:600px;height:40px;background:#cde">Beds</div>';
const RUN = ['--width', '390,1280', '--quiet'];

/** Width and height of a PNG, from its first chunk (RFC 2083, 4.1.1). */
function getSize(path: string): [number, number] {
  const bytes = readFileSync(join(shop.folder, path));
  expect(bytes.subarray(1, 4).toString()).toBe('PNG');
  return [bytes.readUInt32BE(16), bytes.readUInt32BE(20)];
}

test('sheets and report are written under safe names, and show the culprit', async () => {
  shop.write('in/wide.html', WIDE);
  shop.write('in/-- $(x) é.html', '<img src="x.png">');
  const { code, out } = await shop.run([
    ...['audit', 'in', ...RUN, '--keep', 'kept'],
    ...['--save', 'out/all.png', '--save', 'out/all.html', '--pictures', 'out/each'],
  ]);
  expect(code).toBe(1);
  expect(out).toMatch(/ {2}1 {2}■ blocker {2}page-scrolls-sideways/);
  expect(readdirSync(join(shop.folder, 'out/each')).sort()).toEqual(
    ['x-é.html.png', 'wide.html.png'].sort(),
  );
  const [width, height] = getSize('out/each/wide.html.png');
  expect(width).toBe(1600);
  expect(getSize('out/all.png')[1]).toBeGreaterThan(height);
  const html = readFileSync(join(shop.folder, 'out/all.html'), 'utf8');
  expect(html.match(/<img\s+src="data:image\/png;base64,iVBOR/g)).toHaveLength(4);
  expect(html.match(/class="mark blocker"/g)!.length).toBeGreaterThan(0);
  // Of the narrow window the picture shows what it does not: 600 px and the inset.
  expect(html).toMatch(/class="edge"/);
});

test('a kept run has its pictures: judged again, the report is made without a browser', async () => {
  const env = { MIVKET_BROWSER: '/nowhere' };
  const { code } = await shop.run(['judge', 'kept', '--save', 'again.html'], { env });
  expect(code).toBe(1);
  const html = readFileSync(join(shop.folder, 'again.html'), 'utf8');
  expect(html.match(/<img\s+src="data:image\/png/g)).toHaveLength(4);
  const png = await shop.run(['judge', 'kept', '--save', 'again.png'], { env });
  expect([png.code, png.err]).toEqual([
    2,
    expect.stringMatching(/^mivket: `--save again\.png` does not go with `judge`/),
  ]);
});

test('--open opens the report with what the desktop has, or says where it is', async () => {
  const opener = shop.write(
    'bin/xdg-open',
    `#!/bin/sh\necho "$1" > ${shop.folder}/opened.txt.new\nmv ${shop.folder}/opened.txt.new ${shop.folder}/opened.txt\n`,
  );
  chmodSync(opener, 0o755);
  const args = ['audit', '--code', '<p>x</p>', '--markup-only', '--quiet', '--open'];
  const nowhere = { DISPLAY: '', WAYLAND_DISPLAY: '', BROWSER: '' };
  const none = await shop.run(args, { env: nowhere });
  expect(none.err).toMatch(/nothing here to open mivket-report\.html with; it is at \//);
  expect(existsSync(join(shop.folder, 'mivket-report.html'))).toBe(true);
  const path = `${join(shop.folder, 'bin')}:${process.env.PATH}`;
  const some = await shop.run(args, { env: { ...nowhere, DISPLAY: ':9', PATH: path } });
  expect(some.err).toMatch(/Opened mivket-report\.html\./);
});

test.each([
  [['--save', 'x.doc'], /must end on .*, \.html, \.png or \.har, found "x\.doc"/],
  [['--save', 'x.png', '--markup-only'], /`--save x\.png` does not go with `--markup-only`/],
  [['--save', 'bad/dir/x.html'], /bad\/dir\/x\.html could not be written: a file is in the way/],
])('%j is told in a sentence', async (options, words) => {
  shop.write('bad', '');
  const { code, err } = await shop.run(['audit', '--code', '<p>x</p>', ...RUN, ...options]);
  expect(err).toMatch(words);
  expect(code).toBe(2);
});

test('a page around that is harmed is shown without the snippet and with it, again from a kept run', async () => {
  shop.write('harm.html', '<p>Sow</p><script>document.querySelector("h1").remove()</script>');
  const args = ['--width', '390', '--quiet', '--keep', 'harmed', '--save', 'harm-report.html'];
  const { out } = await shop.run(['audit', 'harm.html', ...args, '--format', 'json']);
  const document = JSON.parse(out) as RunDocument;
  const { harm } = document.snippets[0]!.renders[0]!;
  expect(harm!.without!.region).toEqual(harm!.with.region);
  expect(harm!.without!.hash).not.toBe(harm!.with.hash);
  const getPictures = (file: string) =>
    readFileSync(join(shop.folder, file), 'utf8').match(/<img\s+src="data:image\/png/g);
  expect(getPictures('harm-report.html')).toHaveLength(3);
  await shop.run(['judge', 'harmed', '--save', 'harm-again.html']);
  expect(getPictures('harm-again.html')).toHaveLength(3);
  const sound = await shop.run(['audit', '--code', '<p>Sow</p>', '--format', 'json', ...args]);
  expect((JSON.parse(sound.out) as RunDocument).snippets[0]!.renders[0]!.harm).toBeNull();
});
