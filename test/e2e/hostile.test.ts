import { afterAll, afterEach, beforeAll, expect, test } from '@jest/globals';
import { createSocket } from 'node:dgram';
import { readdirSync } from 'node:fs';
import { FULL, listHostile, openHostileVendor, type HostileVendor } from '../support/hostile.js';
import { findProcesses } from '../support/processes.js';
import { getIds, Workshop } from '../support/program.js';

const shop = new Workshop();
let vendor: HostileVendor;

beforeAll(async () => {
  vendor = await openHostileVendor(shop);
});

afterAll(() => {
  vendor.close();
  shop.close();
});

afterEach(() => {
  // Nothing may be left: no profile, no browser that works on one.
  expect(readdirSync(shop.temporary)).toEqual([]);
  expect(findProcesses(shop.temporary)).toEqual([]);
});
/** `test/long` has more of them. */
const TRIED = listHostile(12);

test('costs only itself, and is named for what it does', async () => {
  TRIED.forEach(([, code], i) => shop.write(`hostile/${i}.html`, code));
  shop.write('hostile/sound.html', '<p>Sow beans in May.</p>');
  const { document } = await shop.audit(['hostile', '--width', '390', '--jobs', '2']);
  const ids = getIds(document);
  const found = TRIED.map(([name], i) => [name, [...new Set(ids[`${i}.html`])]]);
  expect(found).toEqual(TRIED.map(([name, , expected]) => [name, expected]));
  expect(ids['sound.html']).toEqual([]);
}, 120_000);

test('a snippet has so much time as a whole, and is told with what was seen by then', async () => {
  const code =
    '<img src="data:,"><p id="x">x</p><script>setInterval(() => { for (let i = 0; i < 50; i++) x.append(Object.assign(document.createElement("iframe"), { title: "x", srcdoc: "<p>x" })) }, 50)</script>';
  const { code: exit, document } = await shop.audit([
    '--code',
    code,
    '--width',
    '390',
    '--time-limit',
    '2s',
  ]);
  const [snippet] = document.snippets;
  expect([exit, snippet!.verdict]).toEqual([1, 'hold']);
  expect(snippet!.findings.map(({ id }) => id)).toContain('picture-without-alt');
  const whys = new Set(snippet!.gaps.map(({ why }) => why));
  expect(whys).toContain('the 2 s that a snippet may take were over');
}, 60_000);

test('a service worker of one load, or one snippet, has no part in the next', async () => {
  vendor.asked.length = 0;
  const frame = `<iframe title="x" ${FULL} src="https://player.loam.example/frame"></iframe>`;
  shop.write('workers/1.html', frame);
  shop.write('workers/2.html', `<p>x</p>${frame}`);
  await shop.audit(['workers', '--jobs', '1']);
  // Two snippets at two widths and more: had a worker lived on, it would have answered.
  const loads = vendor.asked.filter((path) => path === '/frame').length;
  expect(vendor.asked.filter((path) => path === '/sw.js').length).toBeGreaterThanOrEqual(4);
  expect(vendor.asked.filter((path) => path === '/probe')).toHaveLength(loads);
}, 120_000);

test('WebRTC gets no packet past the gate', async () => {
  const { port } = vendor.listener.address();
  const servers = `[{ urls: "stun:127.0.0.1:${port}" }]`;
  const code = `<p>x</p><script>const peer = new RTCPeerConnection({ iceServers: ${servers} }); peer.createDataChannel("x"); peer.createOffer().then((offer) => peer.setLocalDescription(offer));</script>`;
  // The listener hears what is sent to it: without this the silence below would prove nothing.
  const probe = createSocket('udp4');
  const first = new Promise<void>((resolve) => vendor.listener.once('message', () => resolve()));
  probe.send('x', port, '127.0.0.1');
  await first;
  probe.close();
  vendor.heard.length = 0;
  const { document } = await shop.audit(['--code', code, '--width', '390']);
  expect(document.snippets[0]!.gaps).toEqual([]);
  expect(vendor.heard).toEqual([]);
});

test('control characters reach neither the terminal nor the report as such', async () => {
  shop.write('esc.html', '<img src="\u001b[2Jx.png" class="\u202e\u0007">\n');
  const { out } = await shop.run(['audit', 'esc.html', '--width', '390']);
  expect(out).toContain('picture-without-alt');
  expect(out).not.toMatch(/[\u001b\u0007\u202e]/);
});
