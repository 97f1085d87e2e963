import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { createServer, request, type Server } from 'node:http';
import { connect as connectSecure } from 'node:http2';
import { connect, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { connect as startTls } from 'node:tls';
import { makeCertificate } from '../../src/render/gate/certificate.js';
import { Gate } from '../../src/render/gate/gate.js';

const folder = mkdtempSync(join(tmpdir(), 'mivket-gate-'));
let vendor: Server;
let gate: Gate;
let port: number;

beforeAll(async () => {
  mkdirSync(join(folder, 'public/in'), { recursive: true });
  writeFileSync(join(folder, 'public/in/site.css'), 'p {}');
  writeFileSync(join(folder, 'secret.txt'), 'secret');
  symlinkSync(join(folder, 'secret.txt'), join(folder, 'public/link.txt'));
  vendor = createServer((ask, answer) => answer.end(`${ask.headers.host} ${ask.url}`));
  await new Promise<void>((resolve) => vendor.listen(0, '127.0.0.1', resolve));
  const origin = `http://127.0.0.1:${(vendor.address() as AddressInfo).port}`;
  const reroute = { '*.fernmap.example': origin, 'dead.example': 'http://127.0.0.1:1' };
  gate = new Gate(
    { origin: 'https://www.seedlibrary.example', reroute, offline: false },
    { certificate: await makeCertificate() },
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
  });

  test.each(['/../secret.txt', '/..%2fsecret.txt', '/link.txt', '/in', '/%zz'])(
    'keeps to its folder: %s',
    async (path) => {
      gate.takeRefusals();
      expect(await getSecure('www.seedlibrary.example', path)).toMatchObject({
        status: 404,
        body: '',
      });
      expect(gate.takeRefusals()).toMatchObject([
        { kind: 'unknown-name', host: 'www.seedlibrary.example' },
      ]);
    },
  );

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

  test('refuses private addresses, by number and by name, and says so', async () => {
    gate.takeRefusals();
    expect((await get('http://192.168.4.20/x')).status).toBe(403);
    for (const authority of ['169.254.169.254:443', '[::1]:443', 'localhost:3000']) {
      const { line, socket } = await tunnel(authority);
      socket.destroy();
      expect(line).toBe('HTTP/1.1 403 Forbidden');
    }
    expect(gate.takeRefusals().map(({ kind, host }) => `${kind} ${host}`)).toEqual([
      'private-address 192.168.4.20',
      'private-address 169.254.169.254',
      'private-address [::1]',
      'private-address localhost',
    ]);
  });

  test('does not look up names that the standards set aside, and says who did not answer', async () => {
    expect((await get('http://nobody.example/')).status).toBe(502);
    expect((await get('http://dead.example/')).status).toBe(502);
    expect(gate.takeRefusals().map(({ kind }) => kind)).toEqual(['unknown-name', 'unreachable']);
  });
});
