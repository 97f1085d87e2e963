import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { createServer, type IncomingHttpHeaders, type Server } from 'node:http';
import type { Evidence } from '../../dist/src/core/evidence.js';
import { completeHouse, type House } from '../../dist/src/core/house/house.js';
import { houseSchema } from '../../dist/src/core/house/schema.js';
import { readMarkup } from '../../dist/src/core/markup/markup.js';
import { planRenders } from '../../dist/src/core/plan.js';
import { findBrowser } from '../../dist/src/render/browser/find.js';
import { Renderer } from '../../dist/src/render/renderer.js';
import { listen } from '../support/listen.js';

const OTHER = 'Mozilla/5.0 (iPhone; CPU iPhone OS 18_0 like Mac OS X) AppleWebKit/605.1.15 Safari';
/** What each path was asked with, load after load. */
const asked = new Map<string, IncomingHttpHeaders[]>();
/** What frames said of the browser, load after load. */
const said: string[][] = [];
let vendor: Server;
let house: House;

const FRAME = `<script>
  new Worker('/worker.js'); new SharedWorker('/shared.js');
  navigator.serviceWorker.register('/service.js').then(() => fetch('/registered'));
  fetch('/says?' + encodeURIComponent(JSON.stringify([navigator.userAgent, navigator.platform, navigator.language, Intl.NumberFormat().resolvedOptions().locale])));
</script>`;
const SCRIPTS: Record<string, string> = {
  '/worker.js': 'fetch("/by-worker")',
  '/shared.js': 'fetch("/by-shared")',
  '/service.js': 'fetch("/by-service")',
};

beforeAll(async () => {
  vendor = createServer((ask, answer) => {
    const path = ask.url!.split('?')[0]!;
    asked.set(path, [...(asked.get(path) ?? []), ask.headers]);
    if (path === '/says') said.push(JSON.parse(decodeURIComponent(ask.url!.split('?')[1]!)));
    answer.setHeader('content-type', path === '/frame' ? 'text/html' : 'text/javascript');
    answer.end(path === '/frame' ? FRAME : (SCRIPTS[path] ?? ''));
  });
  const origin = `http://127.0.0.1:${await listen(vendor)}`;
  const viewports = [
    { name: 'phone', width: 390 },
    { name: 'desktop', width: 1280 },
    { name: 'other', width: 375, userAgent: OTHER },
  ];
  const reroute = { 'tally.example': origin };
  house = completeHouse(houseSchema.parse({ language: 'de-AT', viewports, reroute }), null);
});

afterAll(() => {
  vendor.closeAllConnections();
  vendor.close();
});

test('vendors meet a visitor’s browser: its name, its hints and its language, whoever asks', async () => {
  const renderer = await Renderer.open({
    program: await findBrowser(),
    house,
    ownPage: null,
    root: null,
    offline: false,
  });
  const text = '<iframe title="Visits" src="https://tally.example/frame"></iframe>';
  let evidence: Evidence[];
  try {
    const renders = planRenders('x', house, house);
    const snippet = { name: 'x', path: null, text };
    evidence = await renderer.renderSnippet(snippet, readMarkup(text), renders, () => undefined);
  } finally {
    await renderer.close();
  }
  // A shared worker belongs to no page, and still is weighed.
  for (const { page, traffic } of evidence) {
    expect(page.stillMoving).toEqual([]);
    const got = traffic.filter(({ status }) => status === 200).map(({ address }) => address);
    for (const path of ['worker', 'by-worker', 'shared.js', 'by-shared'])
      expect(got).toContainEqual(expect.stringContaining(`https://tally.example/${path}`));
  }
  const all = [...asked.values()].flat();
  expect([...asked.keys()]).toEqual(
    expect.arrayContaining(['/by-worker', '/by-shared', '/by-service', '/service.js']),
  );
  expect(all.filter((headers) => /headless/i.test(JSON.stringify(headers)))).toEqual([]);
  expect(new Set(all.map((headers) => headers['accept-language']?.slice(0, 5)))).toEqual(
    new Set(['de-AT']),
  );
  const frames = asked
    .get('/frame')!
    .map((headers) => [
      headers['user-agent']!.replace(/Chrome\/\d+/, 'Chrome/N'),
      String(headers['sec-ch-ua'] ?? '').replace(/\d+/g, 'N'),
      headers['sec-ch-ua-mobile'],
      headers['sec-ch-ua-platform'],
    ]);
  const engine = 'AppleWebKit/537.36 (KHTML, like Gecko) Chrome/N.0.0.0';
  const brands = '"Not.A/Brand";v="N", "Chromium";v="N"';
  expect(frames).toEqual([
    [
      `Mozilla/5.0 (Linux; Android 10; K) ${engine} Mobile Safari/537.36`,
      brands,
      '?1',
      '"Android"',
    ],
    [`Mozilla/5.0 (X11; Linux x86_64) ${engine} Safari/537.36`, brands, '?0', '"Linux"'],
    [OTHER, '', undefined, undefined],
  ]);
  expect(asked.get('/by-worker')![2]!['user-agent']).toBe(OTHER);
  expect(said.map(([, ...rest]) => rest)).toEqual([
    ['Linux armv81', 'de-AT', 'de-AT'],
    ['Linux x86_64', 'de-AT', 'de-AT'],
    ['iPhone', 'de-AT', 'de-AT'],
  ]);
});
