import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync, gzipSync } from 'node:zlib';
import { HOSTS, startStandIns, type StandIns } from '../../dist/demo/stand-ins/index.js';
import type { RunDocument } from '../../dist/src/core/run.js';
import { getIds, Workshop } from '../support/program.js';

const shop = new Workshop();
let recorded: RunDocument;

beforeAll(async () => {
  const standIns: StandIns = await startStandIns();
  const reroute = HOSTS.map((host) => `  "${host}": ${standIns.origin}`).join('\n');
  shop.write(
    'mivket.yaml',
    `viewports: [{ name: phone, width: 390 }, { name: desktop, width: 1280 }]\nreroute:\n${reroute}\n`,
  );
  shop.write('in/count.html', '<script async src="https://tally.example/heavy.js"></script>');
  shop.write('in/film.html', FILM);
  shop.write('in/logo.html', '<img alt="Seed library" src="https://192.168.7.7/logo.png">');
  shop.write('in/wait.html', '<p>Sow</p><script src="https://tally.example/small.js"></script>');
  shop.write(
    'in/map.html',
    '<iframe title="Map" width="640" height="360" src="https://maps.fernmap.example/embed/x"></iframe>',
  );
  ({ document: recorded } = await shop.audit([
    'in',
    ...ONCE,
    '--record',
    'all.har',
    '--keep',
    'first',
  ]));
  await standIns.close();
});

afterAll(() => shop.close());

const FILM =
  '<video src="https://media.loam.example/rain.mp4" autoplay muted playsinline controls style="width:100%; aspect-ratio: 16 / 9"><track src="data:text/vtt,WEBVTT"></video>';
/** One window says it. */
const ONCE = ['--no-ranges', '--width', '390'];
const REPLAY = ['in', ...ONCE, '--replay', 'all.har'];

/** A run without what may differ from one to the next: its own time, and times that were measured. */
function getEssence(document: RunDocument): unknown {
  const text = JSON.stringify({ ...document, startedAt: '', renderedAt: '', durationMs: 0 });
  return JSON.parse(text.replaceAll(/"waitedMs":[\d.]+/g, '"waitedMs":0'));
}

test('a replay needs nobody, finds what was found, and is the same every time', async () => {
  const first = await shop.audit(REPLAY);
  const second = await shop.audit(REPLAY);
  expect(getEssence(second.document)).toEqual(getEssence(first.document));
  const ids = getIds(first.document);
  expect(ids).toEqual(getIds(recorded));
  expect(ids).toMatchObject({
    'count.html': ['script-weight-over-limit'],
    'logo.html': ['host-private-address'],
    'map.html': ['page-scrolls-sideways', 'frame-fixed-size', 'frame-border-left-on'],
    'wait.html': ['script-blocks-page'],
  });
  const count = first.document.snippets.find(({ name }) => name === 'count.html')!;
  expect(count.loads!.requests.map(({ host, by, line }) => [host, by, line])).toEqual(
    expect.arrayContaining([
      ['tally.example', null, 1],
      ['cdn.tallyroot.example', 0, 1],
    ]),
  );
  // Films are not kept: what only they could show is not judged, and said to be so.
  for (const id of ['autoplay-did-not-start', 'autoplay-despite-reduced-motion'])
    expect(first.document.notJudged).toContainEqual({
      id,
      snippet: 'film.html',
      why: 'the recording keeps no film and no sound (phone, column)',
    });
});

test('the recording has what was blocked too, and no film', () => {
  const { log } = JSON.parse(readFileSync(join(shop.folder, 'all.har'), 'utf8')) as {
    log: { entries: { request: { url: string }; response: { content: { text?: string } } }[] };
  };
  const texts = new Map(log.entries.map((one) => [one.request.url, one.response.content.text]));
  expect(texts.has('https://192.168.7.7/')).toBe(true);
  expect(texts.get('https://media.loam.example/rain.mp4')).toBeUndefined();
  expect(texts.get('https://tally.example/heavy.js')).toMatch(/\w/);
});

test('in a kept replayed run only what changed is rendered again', async () => {
  await shop.audit([...REPLAY, '--keep', 'kept']);
  const folder = join(shop.folder, 'kept/evidence');
  // A mark in what was kept, to be told from what is rendered.
  for (const name of readdirSync(folder)) {
    const text = gunzipSync(readFileSync(join(folder, name))).toString();
    writeFileSync(join(folder, name), gzipSync(text.replaceAll('"width":358', '"width":357')));
  }
  shop.write('in/logo.html', '<img alt="The library" src="https://192.168.7.7/logo.png">');
  const { document } = await shop.audit([...REPLAY, '--keep', 'kept']);
  const widths = document.snippets.map(({ name, renders }) => [name, renders[0]!.slotWidth]);
  expect(widths).toEqual([
    ['count.html', 357],
    ['film.html', 357],
    ['logo.html', 358],
    ['map.html', 357],
    ['wait.html', 357],
  ]);
  expect(readdirSync(folder)).toHaveLength(5);
  shop.write('other.yaml', `viewports: [{ name: phone, width: 390 }]`);
  const other = await shop.audit([...REPLAY, '--keep', 'kept', '--house', 'other.yaml']);
  expect(other.document.snippets.map(({ renders }) => renders[0]!.slotWidth)).toEqual([
    358, 358, 358, 358, 358,
  ]);
});

test('a kept run is judged again under another house, without a browser', async () => {
  const env = { MIVKET_BROWSER: '/nowhere' };
  const same = await shop.run(['judge', 'first', '--format', 'json'], { env });
  const again = JSON.parse(same.out) as RunDocument;
  expect(again.snippets).toEqual(recorded.snippets);
  expect([same.code, again.engines]).toEqual([1, recorded.engines]);
  shop.write(
    'lenient.yaml',
    'levels: { page-scrolls-sideways: advice, frame-wider-than-slot: advice, host-private-address: off }\nlimits: { scriptBytes: 1MB }',
  );
  const lenient = await shop.run(['judge', 'first', '--house', 'lenient.yaml'], { env });
  expect(lenient.err).toMatch(/^mivket: This house has other slots, viewports/);
  // What was refused was not seen, whatever the house thinks of it.
  expect(lenient.out).toMatch(/logo\.html {2}UNSURE/);
  expect(lenient.out).toMatch(/count\.html {2}CLEAR/);
  expect(lenient.code).toBe(3);
});

test.each([
  [['judge', 'in'], /^mivket: in is no kept run: it has no kept\.json\. Give a folder that/],
  [['audit', 'in', '--replay', 'no.har'], /^mivket: no\.har does not exist\. Give an HTTP Archive/],
  [['judge', 'first', '--save', 'b.har'], /`--save b\.har` does not go with `judge`/],
  [['audit', 'in', '--record', 'a.txt'], /`--record` must end on \.har, found "a\.txt"/],
  [['audit', 'in', '--record', 'a.har', '--replay', 'all.har'], /`--record` does not go with/],
  [['audit', 'in', '--keep', 'x', '--markup-only'], /`--keep` does not go with `--markup-only`/],
])('%j is told in a sentence', async (args, words) => {
  const { code, err, out } = await shop.run(args);
  expect(err).toMatch(words);
  expect([code, out]).toEqual([2, '']);
});
