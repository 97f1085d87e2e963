import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { createServer, request, type Server } from 'node:http';
import { connect as connectSecure } from 'node:http2';
import { connect, type AddressInfo } from 'node:net';
import { networkInterfaces, tmpdir } from 'node:os';
import { join } from 'node:path';
import { connect as startTls } from 'node:tls';
import { makeCertificate } from '../../src/render/gate/certificate.js';
import { Gate } from '../../src/render/gate/gate.js';
import { Recording } from '../../src/core/recording/recording.js';
import { makeExchange } from '../support/exchange.js';
import { listen } from '../support/listen.js';

/** An address of this machine that is not the loopback, where it has one. */
const OWN =
  Object.values(networkInterfaces())
    .flatMap((all) => all ?? [])
    .find(({ internal }) => !internal)?.address ?? '127.0.0.1';
/** What the name servers say; null where they do not answer. */
const NAMES: Record<string, string[] | null> = {
  'printer.fernmap.internal': ['10.0.0.7'],
  'mixed.fernmap.internal': ['203.0.113.9', '127.0.0.1'],
  'own.fernmap.internal': [OWN],
  'slow.fernmap.internal': null,
};

const folder = mkdtempSync(join(tmpdir(), 'mivket-gate-'));
let vendor: Server;
let gate: Gate;
let port: number;

beforeAll(async () => {
  mkdirSync(join(folder, 'public/in'), { recursive: true });
  writeFileSync(join(folder, 'public/in/site.css'), 'p {}');
  writeFileSync(join(folder, 'secret.txt'), 'secret');
  // Its name begins like that of the folder.
  mkdirSync(join(folder, 'public2'));
  writeFileSync(join(folder, 'public2/site.css'), 'secret');
  symlinkSync(join(folder, 'secret.txt'), join(folder, 'public/link.txt'));
  for (const name of ['.env', '.git/config', 'in/.env', '.well-known/seeds.txt']) {
    mkdirSync(join(folder, 'public', name, '..'), { recursive: true });
    writeFileSync(join(folder, 'public', name), name);
  }
  symlinkSync('.env', join(folder, 'public/visible.txt'));
  vendor = createServer((ask, answer) => {
    answer.statusCode = Number(/\/status\/(\d+)/.exec(ask.url ?? '')?.[1] ?? 200);
    answer.end(`${ask.headers.host} ${ask.url}`);
  });
  const origin = `http://127.0.0.1:${await listen(vendor)}`;
  const reroute = { '*.fernmap.example': origin, 'dead.example': 'http://127.0.0.1:1' };
  gate = new Gate(
    { origin: 'https://www.seedlibrary.example', reroute, offline: false },
    {
      certificate: await makeCertificate(),
      look: (name) => Promise.resolve(name in NAMES ? NAMES[name]! : []),
    },
  );
  gate.setPage({
    html: '<p>page</p>',
    headers: { 'x-house': 'yes' },
    root: join(folder, 'public'),
  });
  port = await gate.open();
});

afterAll(async () => {
  await gate.close();
  vendor.close();
  rmSync(folder, { recursive: true });
});

/** A plain proxy request. */
function get(url: string): Promise<{ status: number; body: string }> {
  return new Promise((resolve, reject) => {
    const ask = request(
      { host: '127.0.0.1', port, path: url, headers: { host: new URL(url).host } },
      (answer) => {
        let body = '';
        answer.on('data', (chunk: Buffer) => (body += chunk.toString()));
        answer.on('end', () => resolve({ status: answer.statusCode ?? 0, body }));
      },
    );
    ask.on('error', reject).end();
  });
}

/** The first line that CONNECT is answered with, and the socket. */
function tunnel(authority: string) {
  return new Promise<{ line: string; socket: ReturnType<typeof connect> }>((resolve) => {
    const socket = connect(port, '127.0.0.1', () =>
      socket.write(`CONNECT ${authority} HTTP/1.1\r\nhost: ${authority}\r\n\r\n`),
    );
    socket.once('data', (data: Buffer) =>
      resolve({ line: data.toString().split('\r\n')[0]!, socket }),
    );
  });
}

/** A page of the tunnel's host, over TLS and HTTP/2. */
async function getSecure(
  authority: string,
  path: string,
): Promise<{ status: number; body: string; house: unknown }> {
  const { socket } = await tunnel(`${authority}:443`);
  const secure = startTls({
    socket,
    servername: authority,
    rejectUnauthorized: false,
    ALPNProtocols: ['h2'],
  });
  const session = connectSecure(`https://${authority}`, { createConnection: () => secure });
  try {
    return await new Promise((resolve, reject) => {
      const stream = session.request({ ':path': path });
      let status = 0;
      let house: unknown;
      let body = '';
      stream.on(
        'response',
        (headers) => ([status, house] = [Number(headers[':status']), headers['x-house']]),
      );
      stream.on('data', (chunk: Buffer) => (body += chunk.toString()));
      stream.on('end', () => resolve({ status, body, house }));
      stream.on('error', reject);
    });
  } finally {
    session.destroy();
  }
}

describe('the gate', () => {
  test('answers for the host page with the house’s headers, and for its files', async () => {
    expect(await getSecure('www.seedlibrary.example', '/')).toEqual({
      status: 200,
      body: '<p>page</p>',
      house: 'yes',
    });
    expect(await getSecure('www.seedlibrary.example', '/in/site.css')).toMatchObject({
      status: 200,
      body: 'p {}',
    });
    expect(await getSecure('www.seedlibrary.example', '/.well-known/seeds.txt')).toMatchObject({
      status: 200,
    });
  });

  test.each([
    '/../secret.txt',
    '/..%2fsecret.txt',
    '/..%2fpublic2%2fsite.css',
    '/link.txt',
    '/.env',
    '/.git/config',
    '/in/%2eenv',
    '/visible.txt',
    '/in',
    '/%zz',
    '//',
    '//x/y',
  ])('keeps to its folder: %s', async (path) => {
    gate.takeLog();
    expect(await getSecure('www.seedlibrary.example', path)).toMatchObject({
      status: 404,
      body: '',
    });
    // The site is here, so that it is the truth.
    expect(gate.takeLog().refusals).toEqual([]);
  });

  test('sends a rerouted host on under its real name, with and without TLS', async () => {
    expect(await getSecure('maps.fernmap.example', '/embed?x=1')).toMatchObject({
      status: 200,
      body: 'maps.fernmap.example /embed?x=1',
    });
    expect(await get('http://maps.fernmap.example/plain')).toEqual({
      status: 200,
      body: 'maps.fernmap.example /plain',
    });
  });

  test('writes down what it passes on, and not what it answers for the page', async () => {
    gate.takeLog();
    await getSecure('maps.fernmap.example', '/embed?x=2');
    await getSecure('www.seedlibrary.example', '/in/site.css');
    await get('http://maps.fernmap.example/status/404');
    const { entries } = gate.takeLog();
    expect(entries.map(({ address, status, wire }) => [address, status, wire])).toEqual([
      ['https://maps.fernmap.example/embed?x=2', 200, 'maps.fernmap.example /embed?x=2'.length],
      ['http://maps.fernmap.example/status/404', 404, 'maps.fernmap.example /status/404'.length],
    ]);
    expect(gate.takeLog().entries).toEqual([]);
  });

  test('a path may begin with two slashes, and a status may be any', async () => {
    expect((await getSecure('maps.fernmap.example', '//a/b.js')).body).toBe(
      'maps.fernmap.example //a/b.js',
    );
    gate.takeLog();
    expect((await getSecure('maps.fernmap.example', '/status/999')).status).toBe(502);
    expect((await get('http://maps.fernmap.example/status/600')).status).toBe(502);
    expect(gate.takeLog().refusals.map(({ kind }) => kind)).toEqual(['odd-status', 'odd-status']);
    expect((await getSecure('maps.fernmap.example', '/status/599')).status).toBe(599);
  });

  test.each([
    'x.fernmap.example:99999',
    'x.fernmap.example:',
    'x.fernmap.example',
    '[zz]:443',
    ':443',
  ])('what is no host and port is answered, and the rest goes on: %s', async (authority) => {
    const { line, socket } = await tunnel(authority);
    socket.destroy();
    expect(line).toMatch(/^HTTP\/1.1 (403|400) /);
    expect((await get('http://maps.fernmap.example/plain')).status).toBe(200);
  });

  test.each([
    ['printer.fernmap.internal', 'private-address', 403],
    ['mixed.fernmap.internal', 'private-address', 403],
    ['own.fernmap.internal', 'private-address', 403],
    ['slow.fernmap.internal', 'no-lookup', 502],
    ['nobody.fernmap.internal', 'unknown-name', 502],
  ])('a name is refused by what it leads to: %s, %s', async (host, kind, status) => {
    gate.takeLog();
    expect((await get(`http://${host}/`)).status).toBe(status);
    expect(gate.takeLog().refusals).toMatchObject([{ kind, host }]);
  });

  test('refuses private addresses, by number and by name, and says so', async () => {
    gate.takeLog();
    expect((await get('http://192.168.4.20/x')).status).toBe(403);
    for (const authority of [
      '169.254.169.254:443',
      '[::1]:443',
      '[::7f00:1]:443',
      'localhost:3000',
    ]) {
      const { line, socket } = await tunnel(authority);
      socket.destroy();
      expect(line).toBe('HTTP/1.1 403 Forbidden');
    }
    expect(gate.takeLog().refusals.map(({ kind, host }) => `${kind} ${host}`)).toEqual([
      'private-address 192.168.4.20',
      'private-address 169.254.169.254',
      'private-address [::1]',
      'private-address [::7f00:1]',
      'private-address localhost',
    ]);
  });

  test('does not look up names that the standards set aside, and says who did not answer', async () => {
    expect((await get('http://nobody.example/')).status).toBe(502);
    expect((await get('http://dead.example/')).status).toBe(502);
    expect(gate.takeLog().refusals.map(({ kind }) => kind)).toEqual([
      'unknown-name',
      'unreachable',
    ]);
  });
});

test('without the password nothing is let through, in a tunnel or out of it', async () => {
  const rules = { origin: 'https://www.seedlibrary.example', reroute: {}, offline: true };
  const closed = new Gate(rules, { certificate: await makeCertificate() }, 'seed');
  closed.setPage({ html: '<p>page</p>', headers: {}, root: null });
  const door = await closed.open();
  const ask = (said: string | null) =>
    new Promise<number | undefined>((resolve, reject) => {
      const headers = {
        host: 'www.seedlibrary.example:443',
        ...(said !== null && {
          'proxy-authorization': `Basic ${Buffer.from(said).toString('base64')}`,
        }),
      };
      const options = { host: '127.0.0.1', port: door, method: 'CONNECT', headers };
      request({ ...options, path: 'www.seedlibrary.example:443' })
        .on('connect', ({ statusCode }, socket) => (socket.destroy(), resolve(statusCode)))
        .on('error', reject)
        .end();
    });
  expect([await ask(null), await ask('mivket:weed'), await ask('mivket:seed')]).toEqual([
    407, 407, 200,
  ]);
  await closed.close();
});

test('a recording with an odd status or header costs that answer only', async () => {
  const exchanges = [
    makeExchange({ url: 'http://tally.example/odd', status: 1234, text: 'x' }),
    makeExchange({ url: 'http://tally.example/half', status: 200.5, text: 'x' }),
    makeExchange({
      url: 'http://tally.example/name',
      headers: [
        ['no name', 'x'],
        ['x-line', 'a\nb'],
        ['x-good', 'yes'],
      ],
      text: 'x',
    }),
  ];
  const rules = { origin: 'https://www.seedlibrary.example', reroute: {}, offline: false };
  const means = { certificate: await makeCertificate(), recording: new Recording(exchanges) };
  const replaying = new Gate(rules, means);
  port = await replaying.open();
  expect((await get('http://tally.example/odd')).status).toBe(502);
  expect((await get('http://tally.example/half')).status).toBe(502);
  expect(await get('http://tally.example/name')).toEqual({ status: 200, body: 'x' });
  await replaying.close();
});

test('what comes in during one load has an end', async () => {
  const rules = {
    origin: 'https://www.seedlibrary.example',
    reroute: { '*.fernmap.example': `http://127.0.0.1:${(vendor.address() as AddressInfo).port}` },
    offline: false,
  };
  const means = { certificate: await makeCertificate(), mostBytes: 100 };
  const small = new Gate(rules, means);
  port = await small.open();
  const page = { html: '', headers: {}, root: null };
  small.setPage(page);
  await get('http://maps.fernmap.example/plain');
  await expect(get(`http://maps.fernmap.example/${'x'.repeat(90)}`)).rejects.toThrow();
  expect(small.takeLog().refusals).toMatchObject([
    { kind: 'too-much', words: 'the page loads more than 100 B: loading was ended there' },
  ]);
  small.setPage(page);
  expect((await get('http://maps.fernmap.example/plain')).status).toBe(200);
  await small.close();
});

test('a file that cannot be read costs that answer only', async () => {
  const rules = { origin: 'https://www.seedlibrary.example', reroute: {}, offline: true };
  const odd = new Gate(rules, { certificate: await makeCertificate() });
  port = await odd.open();
  // It opens, and gives an error when it is read.
  odd.setPage({ html: 'page', headers: {}, root: '/proc/self' });
  await getSecure('www.seedlibrary.example', '/mem').catch(() => null);
  expect((await getSecure('www.seedlibrary.example', '/')).body).toBe('page');
  await odd.close();
});

test('a published page is served under its own path, and its site answers for all else', async () => {
  const origin = `http://127.0.0.1:${(vendor.address() as AddressInfo).port}`;
  const rules = {
    origin: 'http://www.seedlibrary.example',
    reroute: { 'www.seedlibrary.example': origin },
    offline: false,
  };
  const site = new Gate(rules, { certificate: await makeCertificate() });
  const page = { html: 'page', headers: {}, root: null, path: '/about?day=sat' };
  site.setPage({ ...page, published: true });
  const whole = port;
  port = await site.open();
  try {
    expect(await get('http://www.seedlibrary.example/about?day=sat')).toMatchObject({
      body: 'page',
    });
    expect((await get('http://www.seedlibrary.example/')).body).toBe('www.seedlibrary.example /');
    expect((await get('http://www.seedlibrary.example/about')).body).toContain('/about');
    site.setPage(page);
    expect((await get('http://www.seedlibrary.example/')).status).toBe(404);
  } finally {
    port = whole;
    await site.close();
  }
});

test('a host that is made silent takes in what it is asked, until it answers or another page is there', async () => {
  const origin = `http://127.0.0.1:${(vendor.address() as AddressInfo).port}`;
  const rules = { origin: null, reroute: { '*.fernmap.example': origin }, offline: false };
  const site = new Gate(rules, { certificate: await makeCertificate() });
  const page = { html: 'page', headers: {}, root: null };
  site.setPage({ ...page, silent: 'two.fernmap.example' });
  const whole = port;
  port = await site.open();
  try {
    const waits = get('http://two.fernmap.example/a.js').catch(() => 'nobody');
    const other = get('http://one.fernmap.example/a.js').then(({ body }) => body);
    expect(await Promise.race([waits, other])).toBe('one.fernmap.example /a.js');
    site.setPage(page);
    expect(await waits).toBe('nobody');
    expect((await get('http://two.fernmap.example/a.js')).status).toBe(200);
    site.setPage({ ...page, silent: 'two.fernmap.example' });
    const late = get('http://two.fernmap.example/a.js').then(({ body }) => body);
    await get('http://one.fernmap.example/a.js');
    site.endSilence();
    expect(await late).toBe('two.fernmap.example /a.js');
  } finally {
    port = whole;
    await site.close();
  }
});
