import { afterAll, afterEach, beforeAll, expect, test } from '@jest/globals';
import { createSocket, type Socket } from 'node:dgram';
import { readdirSync } from 'node:fs';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { findProcesses } from '../support/processes.js';
import { getIds, Workshop } from '../support/program.js';
import { isSampled } from '../support/sample.js';

const shop = new Workshop();
let vendor: Server;
let listener: Socket;
const asked: string[] = [];
const heard: number[] = [];

/** A vendor that means no good. */
const ANSWERS: Record<string, (url: URL, answer: ServerResponse) => void> = {
  '/on': (url, answer) =>
    answer.writeHead(302, { location: `/on?${Number(url.search.slice(1)) + 1}` }).end(),
  '/inside': (_url, answer) =>
    answer.writeHead(302, { location: 'https://169.254.169.254/latest' }).end(),
  '/frame': (_url, answer) =>
    answer
      .setHeader('content-type', 'text/html')
      .end(
        '<script>fetch("/probe").then(() => navigator.serviceWorker.register("/sw.js"))</script>',
      ),
  '/status': (_url, answer) => answer.writeHead(999).end(),
  '/sw.js': (_url, answer) =>
    answer
      .setHeader('content-type', 'text/javascript')
      .end('onfetch = (event) => event.respondWith(new Response("taken over"))'),
};

beforeAll(async () => {
  vendor = createServer((ask: IncomingMessage, answer) => {
    const url = new URL(ask.url ?? '/', 'http://vendor.example');
    asked.push(url.pathname);
    const respond = ANSWERS[url.pathname];
    if (respond) respond(url, answer);
    else answer.end('as it should be');
  });
  await new Promise<void>((resolve) => vendor.listen(0, '127.0.0.1', resolve));
  const { port } = vendor.address() as AddressInfo;
  shop.write(
    'mivket.yaml',
    `viewports: [{ name: phone, width: 390 }, { name: desktop, width: 1280 }]\nreroute: { "*.loam.example": "http://127.0.0.1:${port}" }`,
  );
  listener = createSocket('udp4', (message) => heard.push(message.length));
  await new Promise<void>((resolve) => listener.bind(0, '127.0.0.1', resolve));
});

afterAll(() => {
  vendor.close();
  listener.close();
  shop.close();
});

afterEach(() => {
  // Nothing may be left: no profile, no browser that works on one.
  expect(readdirSync(shop.temporary)).toEqual([]);
  expect(findProcesses(shop.temporary)).toEqual([]);
});

const FULL = 'style="max-width: 100%; border: 0"';

/** What it does, its code, and all that is to be found. */
const HOSTILE: [string, string, string[]][] = [
  ['a loop in the page', '<p>x</p><script>\nfor (;;) {}\n</script>', ['page-hangs']],
  [
    'a loop in a frame of the page’s own',
    `<iframe title="x" ${FULL} srcdoc="<script>for(;;){}</script>"></iframe>`,
    ['page-hangs', 'frame-height-collapsed', 'off-centre'],
  ],
  [
    'dialogs without end',
    '<script>while (confirm("again?") !== 1) ;</script>',
    ['page-taken-over'],
  ],
  [
    'promises without end',
    '<script>(function on() { Promise.resolve().then(on) })()</script>',
    ['page-hangs'],
  ],
  ['reloading', '<script>location.reload()</script>', ['page-taken-over']],
  [
    'leaving',
    '<script>location = "https://maps.fernmap.example/embed/x"</script>',
    ['page-taken-over'],
  ],
  [
    'leaving by a form',
    '<p>x</p><form id="f" action="https://maps.fernmap.example/"></form><script>f.submit()</script>',
    ['page-taken-over'],
  ],
  [
    'a frame that would take the page along',
    `<iframe title="x" ${FULL} src="data:text/html,<script>top.location='https://fernmap.example'</script>"></iframe>`,
    ['frame-height-collapsed', 'off-centre'],
  ],
  ['a refresh', '<meta http-equiv="refresh" content="0; url=/elsewhere">', ['page-taken-over']],
  ['debugger', '<script>debugger;</script>', []],
  [
    'a new window',
    '<script>open("https://maps.fernmap.example/embed/x")</script>',
    ['page-taken-over'],
  ],
  ['going back', '<p>x</p><script>history.back()</script>', ['page-taken-over']],
  ['an empty page', '<p>x</p><script>location = "about:blank"</script>', ['page-taken-over']],
  [
    'a page by script',
    '<p>x</p><script>location = "javascript:\'x\'"</script>',
    ['page-taken-over'],
  ],
  [
    'a page out of a blob',
    '<p>x</p><script>location = URL.createObjectURL(new Blob(["x"], { type: "text/html" }))</script>',
    ['page-taken-over'],
  ],
  ['a path of slashes', '<img alt="Beans" src="/.//"><img alt="Beans" src="//%zz.example/">', []],
  [
    'a status of the vendor’s own',
    '<img alt="Beans" src="https://static.loam.example/status">',
    [],
  ],
  [
    'a port that there is not',
    '<p>x</p><script>fetch("https://x.loam.example:65536/").catch(() => 0)</script>',
    [],
  ],
  ['printing', '<p>x</p><script>print()</script>', ['page-taken-over']],
  [
    'redirects without end',
    '<img alt="Beans" src="https://static.loam.example/on?0">',
    ['picture-missing'],
  ],
  [
    'a redirect to a metadata address',
    '<img alt="Beans" src="https://static.loam.example/inside">',
    ['host-private-address'],
  ],
  [
    'a private address from a worker',
    '<script>new Worker(URL.createObjectURL(new Blob(["fetch(\'https://169.254.169.254/\').catch(() => 0)"])))</script>',
    ['host-private-address'],
  ],
  [
    'the loopback by name, in a WebSocket',
    '<script>new WebSocket("ws://localhost:1/")</script>',
    ['host-private-address'],
  ],
  [
    'a file of this machine',
    `<iframe title="x" ${FULL} src="file:///etc/passwd"></iframe>`,
    ['address-works-only-here', 'off-centre'],
  ],
  [
    'a file by other ways',
    '<p>x</p><script>fetch("file:///etc/passwd").catch(() => 0); new Image().src = "file:///etc/passwd"</script>',
    [],
  ],
  [
    '20,000 elements side by side',
    `<div>${'<b>x</b>'.repeat(20_000)}</div>`,
    ['page-scrolls-sideways'],
  ],
  ['20,000 elements deep', `${'<div>'.repeat(20_000)}Beans`, ['tag-left-open']],
  [
    'a huge canvas',
    '<canvas id="c" width="32767" height="32767"></canvas><script>c.getContext("2d").fillRect(0, 0, 9, 9)</script>',
    ['page-scrolls-sideways'],
  ],
  [
    'a bomb in the memory',
    '<script>const all = []; for (;;) all.push(new Array(1e6).fill(Math.random()))</script>',
    ['page-hangs'],
  ],
  [
    'layout without end',
    '<p id="p">x</p><script>let n = 0; (function on() { for (let i = 0; i < 50; i++) { p.style.width = `${n++ % 200}px`; p.offsetWidth } requestAnimationFrame(on) })()</script>',
    [],
  ],
  [
    'fields that hide what their form is',
    '<form><input name="children"><input name="localName"><input name="getAttribute"><img src="https://static.loam.example/x.png"></form><img name="documentElement" alt="">',
    ['control-unnamed', 'picture-without-alt', 'picture-missing', 'obsolete-markup'],
  ],
  [
    'functions of the page that were changed',
    '<script>Array.prototype.map = JSON.stringify = Element.prototype.getBoundingClientRect = () => { throw 1 }</script><p style="width: 900px">x</p>',
    ['page-scrolls-sideways'],
  ],
];

/** What takes the longest to come to an end; `npm run drill` has all of it. */
const LONG = /promises without end|in a frame of the page|elements deep|bomb/;
const TRIED = HOSTILE.filter(
  ([name], at) => isSampled(at, 2) && (process.env.MIVKET_ALL || !LONG.test(name)),
);

test('costs only itself, and is named for what it does', async () => {
  TRIED.forEach(([, code], i) => shop.write(`hostile/${i}.html`, code));
  shop.write('hostile/sound.html', '<p>Sow beans in May.</p>');
  const { document } = await shop.audit(['hostile', '--width', '390', '--jobs', '2']);
  const ids = getIds(document);
  const found = TRIED.map(([name], i) => [name, [...new Set(ids[`${i}.html`])]]);
  expect(found).toEqual(TRIED.map(([name, , expected]) => [name, expected]));
  expect(ids['sound.html']).toEqual([]);
  const loop = document.snippets.find(({ name }) => name === '0.html')!;
  expect(loop.findings[0]!.where).toMatchObject({ line: 2, column: 1 });
  expect(new Set(loop.gaps.map(({ why }) => why))).toEqual(new Set(['its code had to be stopped']));
  // Browsers follow twenty.
  expect(asked.filter((path) => path === '/on').length).toBeLessThan(25);
}, 500_000);

test('a message of 70 MB, or many of 1 kB, are no hang and end nothing', async () => {
  const many = process.env.MIVKET_ALL ? 1e5 : 1e4;
  shop.write('loud/long.html', '<p>x</p><script>console.error("x".repeat(70e6))</script>');
  shop.write(
    'loud/many.html',
    `<p>x</p><script>for (let i = 0; i < ${many}; i++) console.error("x".repeat(1000))</script>`,
  );
  const { code, document } = await shop.audit(['loud', '--width', '390', '--jobs', '1']);
  expect(getIds(document)).toEqual({ 'long.html': [], 'many.html': ['script-error'] });
  expect(code).toBe(0);
}, 120_000);

test('5,000 frames take no more time than there is, and are told as far as they were seen', async () => {
  const code = '<iframe style="border: 0; width: 100%; height: 99px"></iframe>'.repeat(5_000);
  shop.write('frames/many.html', code);
  shop.write('frames/sound.html', '<p>Sow beans in May.</p>');
  const args = ['frames', '--width', '390', '--time-limit', '6s'];
  const { document } = await shop.audit(args);
  const ids = getIds(document);
  expect(new Set(ids['many.html'])).toEqual(new Set(['frame-unnamed']));
  expect(ids['sound.html']).toEqual([]);
  expect(document.verdict).toBe('unsure');
}, 120_000);

test('a snippet has so much time as a whole, and is told with what was seen by then', async () => {
  const code =
    '<img src="data:,"><p id="x">x</p><script>setInterval(() => { for (let i = 0; i < 50; i++) x.append(Object.assign(document.createElement("iframe"), { title: "x", srcdoc: "<p>x" })) }, 50)</script>';
  const { code: exit, document } = await shop.audit(['--code', code, '--time-limit', '2s']);
  const [snippet] = document.snippets;
  expect([exit, snippet!.verdict]).toEqual([1, 'hold']);
  expect(snippet!.findings.map(({ id }) => id)).toContain('picture-without-alt');
  const whys = new Set(snippet!.gaps.map(({ why }) => why));
  expect(whys).toContain('the 2 s that a snippet may take were over');
}, 60_000);

test('one bad snippet among twenty costs only itself', async () => {
  for (let i = 0; i < 19; i++) shop.write(`twenty/${i}.html`, `<p>Bed ${i}</p>`);
  shop.write('twenty/bad.html', '<script>for (;;) {}</script>');
  const { document } = await shop.audit(['twenty', '--width', '390']);
  const held = document.snippets.filter(({ verdict }) => verdict !== 'clear');
  expect(held.map(({ name }) => name)).toEqual(['bad.html']);
  expect(document.snippets).toHaveLength(20);
}, 120_000);

test('a service worker of one load, or one snippet, has no part in the next', async () => {
  asked.length = 0;
  const frame = `<iframe title="x" ${FULL} src="https://player.loam.example/frame"></iframe>`;
  shop.write('workers/1.html', frame);
  shop.write('workers/2.html', `<p>x</p>${frame}`);
  await shop.audit(['workers', '--jobs', '1']);
  // Two snippets at two widths and more: had a worker lived on, it would have answered.
  const loads = asked.filter((path) => path === '/frame').length;
  expect(asked.filter((path) => path === '/sw.js').length).toBeGreaterThanOrEqual(4);
  expect(asked.filter((path) => path === '/probe')).toHaveLength(loads);
}, 120_000);

test('WebRTC gets no packet past the gate', async () => {
  const { port } = listener.address();
  const servers = `[{ urls: "stun:127.0.0.1:${port}" }]`;
  const code = `<p>x</p><script>const peer = new RTCPeerConnection({ iceServers: ${servers} }); peer.createDataChannel("x"); peer.createOffer().then((offer) => peer.setLocalDescription(offer));</script>`;
  // The listener hears what is sent to it: without this the silence below would prove nothing.
  const probe = createSocket('udp4');
  const first = new Promise<void>((resolve) => listener.once('message', () => resolve()));
  probe.send('x', port, '127.0.0.1');
  await first;
  probe.close();
  heard.length = 0;
  const { document } = await shop.audit(['--code', code]);
  expect(document.snippets[0]!.gaps).toEqual([]);
  expect(heard).toEqual([]);
});

test('control characters reach neither the terminal nor the report as such', async () => {
  shop.write('esc.html', '<img src="\u001b[2Jx.png" class="\u202e\u0007">\n');
  const { out } = await shop.run(['audit', 'esc.html', '--width', '390']);
  expect(out).toContain('picture-without-alt');
  expect(out).not.toMatch(/[\u001b\u0007\u202e]/);
});
