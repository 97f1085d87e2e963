import { afterAll, beforeAll, expect, jest, test } from '@jest/globals';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createServer, request, type Server } from 'node:http';
import { createServer as createSecure, type Server as SecureServer } from 'node:https';
import { connect, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { connect as startTls } from 'node:tls';
import { gzipSync } from 'node:zlib';
import type { Exchange } from '../../src/core/recording/exchange.js';
import { Recording } from '../../src/core/recording/recording.js';
import { makeCertificate } from '../../src/render/gate/certificate.js';
import { Recorder, Take } from '../../src/render/gate/recorder.js';
import type { getRoute as GetRoute } from '../../src/render/gate/route.js';

// A host of the world outside cannot be had here: `afar.example` stands for one, on the loopback.
const real = await import('../../src/render/gate/route.js');
let afarPort = 0;
const getRoute: typeof GetRoute = async (rules, host, port, replay) =>
  host === 'afar.example' && !replay
    ? { kind: 'tunnel', address: '127.0.0.1', port: afarPort, via: null }
    : real.getRoute(rules, host, port, replay);
jest.unstable_mockModule('../../src/render/gate/route.js', () => ({ ...real, getRoute }));
const { Gate } = await import('../../src/render/gate/gate.js');

const folder = mkdtempSync(join(tmpdir(), 'mivket-record-'));
const load = { snippet: 'map.html', view: 'article at phone' };
const page = { html: '', headers: {}, root: null };
let vendor: Server;
let afar: SecureServer;
let origin: string;

beforeAll(async () => {
  let count = 0;
  vendor = createServer((ask, answer) => {
    if (ask.url === '/film') return void answer.setHeader('content-type', 'video/mp4').end('film');
    if (ask.url === '/packed')
      return void answer.setHeader('content-encoding', 'gzip').end(gzipSync('packed'));
    if (ask.url === '/count') return void answer.end(String(++count));
    answer.setHeader('content-type', 'text/css').end('p {}');
  });
  await new Promise<void>((resolve) => vendor.listen(0, '127.0.0.1', resolve));
  origin = `http://127.0.0.1:${(vendor.address() as AddressInfo).port}`;
  const { key, cert } = await makeCertificate();
  afar = createSecure({ key, cert });
  await new Promise<void>((resolve) => afar.listen(0, '127.0.0.1', resolve));
  afarPort = (afar.address() as AddressInfo).port;
});

afterAll(() => {
  vendor.close();
  afar.close();
  rmSync(folder, { recursive: true });
});

function get(port: number, url: string): Promise<string> {
  return new Promise((resolve, reject) => {
    const headers = { host: new URL(url).host };
    const ask = request({ host: '127.0.0.1', port, path: url, headers }, (answer) => {
      const chunks: Buffer[] = [];
      answer.on('data', (chunk: Buffer) => chunks.push(chunk));
      answer.on('end', () =>
        resolve(`${answer.statusCode} ${Buffer.concat(chunks).toString('latin1')}`),
      );
    });
    ask.on('error', reject).end();
  });
}

const PATHS = ['site.css', 'film', 'packed', 'count', 'count'];

test('what was recorded is replayed, what was blocked is blocked, and nothing else is reachable', async () => {
  const file = join(folder, 'lines');
  const recorder = new Recorder(file);
  const certificate = await makeCertificate();
  const rules = {
    origin: 'https://www.seedlibrary.example',
    reroute: { 'tally.example': origin, 'dead.example': 'http://127.0.0.1:1' },
    offline: false,
  };
  const gate = new Gate(rules, { certificate, recorder });
  const port = await gate.open();
  const live: string[] = [];
  for (const view of ['phone', 'desktop']) {
    gate.setPage(page, { ...load, view });
    for (const path of PATHS) live.push(await get(port, `http://tally.example/${path}`));
    await get(port, 'http://dead.example/');
    await get(port, 'http://192.168.0.1/');
  }
  await gate.close();
  await recorder.finish();
  const lines = readFileSync(file, 'utf8').trim().split('\n');
  const exchanges = lines.map((line) => JSON.parse(line) as Exchange);
  // Of the second load only what differs is written: the count.
  expect(exchanges.map(({ load: { view }, url }) => `${view} ${new URL(url).pathname}`)).toEqual([
    ...PATHS.map((path) => `phone /${path}`),
    'phone /',
    'phone /',
    'desktop /count',
    'desktop /count',
  ]);
  expect(exchanges[1]).toMatchObject({ left: 'media', body: null, size: 4 });
  expect(exchanges[2]).toMatchObject({ body: btoa('packed') });

  const again = new Gate(rules, { certificate, recording: new Recording(exchanges) });
  const replayPort = await again.open();
  const replayed: string[] = [];
  for (const view of ['phone', 'desktop']) {
    again.setPage(page, { ...load, view });
    for (const path of PATHS) replayed.push(await get(replayPort, `http://tally.example/${path}`));
  }
  expect(replayed).toEqual(live.map((one) => (one === '200 film' ? '502 ' : one)));
  again.takeLog();
  await get(replayPort, 'http://dead.example/');
  await get(replayPort, 'http://192.168.0.1/');
  await get(replayPort, 'http://tally.example/new');
  await get(replayPort, 'http://elsewhere.example/');
  expect(again.takeLog().refusals.map(({ kind }) => kind)).toEqual([
    'unreachable',
    'private-address',
    'not-recorded',
    'not-recorded',
  ]);
  await again.close();
});

test('what is too large is left out, and said to be', async () => {
  const take = (bytes: number) => {
    const one = new Take(load, 'GET', 'https://tally.example/', []);
    one.answered(200, {});
    for (let sent = 0; sent < bytes; sent += 1_000_000) one.got(Buffer.alloc(1_000_000));
    one.end();
    return one.whole;
  };
  expect(await take(11_000_000)).toMatchObject({ left: 'too-large', body: null, size: 11_000_000 });
  expect(await take(9_000_000)).toMatchObject({ left: null, size: 9_000_000 });
});

test('while recording, a host with a bad certificate fails as it would live', async () => {
  const [certificate, distrusted] = [await makeCertificate(), await makeCertificate()];
  const file = join(folder, 'bad');
  const recorder = new Recorder(file);
  const gate = new Gate(
    { origin: 'https://www.seedlibrary.example', reroute: {}, offline: false },
    { certificate, distrusted, recorder },
  );
  const port = await gate.open();
  gate.setPage(page, load);
  const socket = connect(port, '127.0.0.1');
  socket.write('CONNECT afar.example:443 HTTP/1.1\r\n\r\n');
  await new Promise((resolve) => socket.once('data', resolve));
  const secure = startTls({ socket, servername: 'afar.example', rejectUnauthorized: false });
  await new Promise((resolve) => secure.once('secureConnect', resolve));
  const shown = secure.getPeerX509Certificate()!.toString();
  expect(shown.trim()).toBe(distrusted.cert.trim());
  secure.destroy();
  await gate.close();
  await recorder.finish();
  expect(JSON.parse(readFileSync(file, 'utf8'))).toMatchObject({
    method: 'CONNECT',
    refused: { kind: 'unreachable', words: expect.stringContaining('SELF_SIGNED') },
  });
});
