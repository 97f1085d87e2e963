import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { createServer, type Server } from 'node:http';
import type { LiveDocument, LivePage } from '../../dist/src/core/live/live.js';
import { listen } from '../support/listen.js';
import { getText, listNodes } from '../support/nodes.js';
import { Workshop } from '../support/program.js';

const SITE = 'https://www.seedlibrary.example';
const MAP =
  '<h2>Find us</h2>\n<iframe src="https://maps.fernmap.example/embed/x" title="Map" allow="fullscreen" style="border: 0; width: 100%; height: 200px"></iframe>\n';
const SOWING = '<div class="sowing"><p>Sow runner beans in May.</p></div>\n';
const page = (body: string) =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Visit</title></head><body><h1>Visit</h1>${body}</body></html>`;
/** As the house's own page has it. */
const house = (body: string, more = '') =>
  page(
    `<style>main { max-width: 680px } ${more}</style><main data-mivket-slot="article">${body}</main>`,
  );
const SITEMAP = `<?xml version="1.0"?><urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9"><url><loc>${SITE}/whole</loc></url><url><loc>${SITE}/late</loc></url></urlset>`;
const escape = (text: string) => text.replaceAll('<', '&lt;');

const PAGES: Record<string, string> = {
  '/whole': page(`<main>\n${MAP}<p>Ask at the desk.</p></main>${SOWING}`),
  '/stripped': page(MAP.replace(' allow="fullscreen"', '').replace('border: 0; ', '')),
  '/twice': page(SOWING + SOWING),
  '/escaped': page(`<p>${escape(MAP.split('\n')[1]!)}</p>`),
  '/late': page(
    `<div id="in"></div><script>document.getElementById('in').innerHTML = ${JSON.stringify(SOWING)}</script>`,
  ),
  '/framed': page('<iframe src="/inner" title="Sowing"></iframe>'),
  '/inner': page(SOWING),
  '/counted': page(
    SOWING.replace('</p>', '</p><script src="https://tally.example/a.js"></script>'),
  ),
  // The words are in another colour where the window is wide.
  '/red': house(SOWING, '@media (min-width: 900px) { .sowing { color: red } }'),
  '/maps.xml': `<sitemapindex><sitemap><loc>${SITE}/map.xml</loc></sitemap></sitemapindex>`,
  '/map.xml': SITEMAP,
  '/embed/x': page('<p style="height: 90px">The way to the glasshouse</p>'),
  '/else': page('<p>Nothing of it.</p>'),
};

const shop = new Workshop();
let server: Server;

beforeAll(async () => {
  server = createServer((ask, answer) => {
    const body = PAGES[ask.url ?? ''];
    answer
      .writeHead(body === undefined ? 404 : 200, { 'content-type': 'text/html; charset=utf-8' })
      .end(body ?? '');
  });
  const origin = `http://127.0.0.1:${await listen(server)}`;
  const hosts = ['www.seedlibrary.example', 'maps.fernmap.example', 'tally.example'];
  const routes = hosts.map((host) => `"${host}": "${origin}"`).join(', ');
  shop.write(
    'mivket.yaml',
    `viewports: [{ name: phone, width: 390 }, { name: desktop, width: 1280 }]\nreroute: { ${routes} }\n`,
  );
  shop.write('host.html', house(''));
  shop.write(
    'own.yaml',
    `${shop.read('mivket.yaml')}page: host.html\nslots: { article: { width: full } }\n`,
  );
  shop.write('in/map.html', MAP);
  shop.write('in/sowing.html', SOWING);
  const { code, err } = await shop.run([
    ...['audit', 'in', '--no-ranges', '--hold-on', 'blocker', '--clear-to', 'cleared.jsonl'],
    ...['--by', 'the desk'],
  ]);
  expect([code, err]).toEqual([
    0,
    expect.stringContaining('2 snippets of 2 added to cleared.jsonl.'),
  ]);
});

afterAll(() => {
  server.close();
  shop.close();
});

const check = async (
  paths: readonly string[],
  more: readonly string[] = ['--ledger', 'cleared.jsonl'],
) => {
  const addresses = paths.map((path) => `${SITE}${path}`);
  const { code, out, err } = await shop.run([
    'check-live',
    ...addresses,
    ...more,
    '--format',
    'json',
  ]);
  expect(err.replace(/mivket: The browser runs without.*\n/, '')).toBe('');
  return { code, document: JSON.parse(out) as LiveDocument };
};
const tell = ({ standings }: LivePage) =>
  standings.map(({ name, state, copies }) => [
    name,
    state,
    copies.map(({ where }) => where).join(),
  ]);

describe('what was cleared, where it is published', () => {
  test('is found as it was, on whichever page', async () => {
    const { code, document } = await check(['/whole', '/else']);
    expect(document.pages.map(tell)).toEqual([
      [
        ['map.html', 'as-cleared', 'sent'],
        ['sowing.html', 'as-cleared', 'sent'],
      ],
      [],
    ]);
    expect(document.pages[0]!.standings[0]!.copies[0]!.line).toBe(2);
    expect([code, document.verdict, document.missing]).toEqual([0, 'clear', []]);
  });

  test('is held where it was stripped, doubled or escaped, and where it is nowhere', async () => {
    const { code, document } = await check(['/stripped', '/twice', '/escaped', '/late', '/framed']);
    expect(document.pages.map(tell)).toEqual([
      [['map.html', 'altered', 'sent']],
      [['sowing.html', 'doubled', 'sent,sent']],
      [['map.html', 'escaped', '']],
      [['sowing.html', 'as-cleared', 'added']],
      [['sowing.html', 'as-cleared', 'frame']],
    ]);
    const { changes } = document.pages[0]!.standings[0]!.copies[0]!;
    expect(changes).toEqual([
      {
        ...{ what: 'attribute-missing', tag: 'iframe', attribute: 'allow', line: 2 },
        ...{ before: 'fullscreen', after: null },
      },
      {
        ...{ what: 'attribute-changed', tag: 'iframe', attribute: 'style', line: 2 },
        before: 'border: 0; width: 100%; height: 200px',
        after: 'width: 100%; height: 200px',
      },
    ]);
    expect(code).toBe(1);
    const { document: nowhere, code: held } = await check(['/else']);
    expect([held, nowhere.missing]).toEqual([1, ['map.html', 'sowing.html']]);
  });

  test('what it does there and did not do when it was cleared is told', async () => {
    const { code, document } = await check(['/counted', '/whole']);
    const [standing] = document.pages[0]!.standings;
    expect(standing!.copies[0]!.changes).toMatchObject([{ what: 'element-added', tag: 'script' }]);
    expect(standing!.behaviour).toMatchObject({ known: true, newHosts: ['tally.example'] });
    expect(standing!.behaviour!.newFindings.map(({ id }) => id)).toContain('request-failed');
    expect(code).toBe(1);
  });

  test('is shown beside what it is in the slot, with what looks otherwise', async () => {
    const more = ['--house', 'own.yaml', '--save', 'live.html', '--save', 'live.json'];
    const args = ['--ledger', 'cleared.jsonl', ...more];
    const { document } = await check(['/red', '/late', '/framed'], args);
    const rows = document.pages.map(({ standings }) =>
      standings.map(({ pictures }) => pictures.map(({ width, alike }) => [width, alike])),
    );
    expect(rows).toEqual([
      [
        [
          [390, true],
          [1280, false],
        ],
      ],
      [
        [
          [390, true],
          [1280, null],
        ],
      ],
      [[]],
    ]);
    const [wide] = document.pages[0]!.standings[0]!.pictures.slice(1);
    // The words are in another colour there.
    expect(wide!.of[1]!.areas.length).toBeGreaterThan(0);
    expect(wide!.of.map((one) => one!.shot.region.width)).toEqual([680, 680]);
    expect(JSON.parse(shop.read('live.json'))).toEqual(document);
    const saved = shop.read('live.html');
    expect(saved.match(/<img\s/g)).toHaveLength(8);
    expect(listNodes(saved).map(getText)).toContain(
      'looks otherwise than in the slot in a window of 1280 px',
    );
    expect(saved).not.toMatch(/<script|https?:\/\/(?!www\.seedlibrary)[^<]*"/);
  });

  test('is read from files too, and pages from a sitemap; in words', async () => {
    shop.write('map.xml', SITEMAP);
    const fetched = await shop.run(['check-live', `${SITE}/maps.xml`, '--snippet', 'in']);
    const { out, code } = await shop.run([
      'check-live',
      'map.xml',
      '--snippet',
      'in',
      '--no-color',
    ]);
    expect(out).toBe(`${SITE}/whole
  map.html  as cleared: line 2
  sowing.html  as cleared: line 4

${SITE}/late
  sowing.html  as cleared: put there by code

CLEAR: 3 snippets found on 2 pages, 3 as cleared.
`);
    expect(code).toBe(0);
    // The same by its address, through one that names it.
    expect(fetched).toEqual({ code, out, err: expect.any(String) });
  });
});

test('without a page it is told which files are as they were cleared, and what is otherwise in them', async () => {
  shop.write('now/map.html', MAP.replace('100%', '640px'));
  shop.write('now/beds.html', SOWING);
  shop.write('now/new.html', '<p>New</p>');
  const { out, code } = await shop.run([
    ...['check-live', '--ledger', 'cleared.jsonl', '--snippet', 'now', '--no-color'],
  ]);
  expect(out).toMatch(/^beds\.html  cleared on \d{4}-\d\d-\d\d \d\d:\d\d by the desk\n/);
  expect(out).toContain('map.html  altered since it was cleared');
  expect(out).toMatch(/ {2}-<iframe .*100%.*\n {2}\+<iframe .*640px/);
  expect(out).toContain('new.html  never cleared\n\nHOLD: 1 of 3 snippets cleared as they are.');
  expect(code).toBe(1);
});

test.each([
  [[`${SITE}/whole`], 'Say what was cleared: give --ledger, --run, or --snippet.'],
  [['--snippet', 'in'], 'Give the addresses of pages to look at'],
  [
    ['nothing.txt', '--snippet', 'in'],
    'nothing.txt is neither the address of a page nor a file with such',
  ],
  [
    [`${SITE}/whole`, '--ledger', 'mivket.yaml'],
    'mivket.yaml:1 is no line that `--clear-to` wrote',
  ],
])('%j is wrong', async (args, words) => {
  const { code, out, err } = await shop.run(['check-live', ...args]);
  expect([code, out]).toEqual([2, '']);
  expect(err).toContain(words);
});
