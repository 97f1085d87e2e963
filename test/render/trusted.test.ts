import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { createServer, request, type Server } from 'node:https';
import { rootCertificates } from 'node:tls';
import { generate } from 'selfsigned';
import { listTrusted, makeTrust } from '../../src/render/gate/trusted.js';
import { listen } from '../support/listen.js';
import { Workshop } from '../support/program.js';

const VENDOR = 'maps.fernmap.example';
const shop = new Workshop();
let vendor: Server;
let port: number;
let file: string;

beforeAll(async () => {
  const { private: key, cert } = await generate([{ name: 'commonName', value: VENDOR }], {
    extensions: [{ name: 'subjectAltName', altNames: [{ type: 2, value: VENDOR }] }],
  });
  vendor = createServer({ key, cert }, (_ask, answer) => answer.end('a map'));
  port = await listen(vendor);
  file = shop.write('desk.pem', `The desk's own\n${cert}\n`);
});
afterAll(() => {
  vendor.closeAllConnections();
  vendor.close();
  shop.close();
});

/** The status that the vendor answers with, or why it is not asked. */
function ask(trust: ReturnType<typeof makeTrust>): Promise<number | string> {
  return new Promise((resolve) => {
    const options = {
      host: '127.0.0.1',
      port,
      servername: VENDOR,
      agent: false,
      ...trust,
    } as const;
    const asked = request(options, (answer) => resolve(answer.resume().statusCode!));
    asked.on('error', ({ code }: NodeJS.ErrnoException) => resolve(code ?? ''));
    asked.end();
  });
}

test.each(['NODE_EXTRA_CA_CERTS', 'SSL_CERT_FILE'])(
  'who is named by %s is trusted',
  async (name) => {
    expect(await ask(makeTrust(listTrusted({}, [])))).toBe('DEPTH_ZERO_SELF_SIGNED_CERT');
    expect(await ask(makeTrust(listTrusted({ [name]: file }, [])))).toBe(200);
  },
);

test('who is in the first usual place that is there is trusted, unless a file is named in its stead', () => {
  const other = shop.write('other.pem', rootCertificates[0]!);
  const sources = (env: Record<string, string>) =>
    listTrusted(env, ['/nowhere.pem', file, other]).map(({ source }) => source);
  expect(sources({})).toEqual([file]);
  expect(sources({ NODE_EXTRA_CA_CERTS: other })).toEqual([other, file]);
  expect(sources({ SSL_CERT_FILE: other })).toEqual([other]);
});

test('what cannot be read is told, and what is no certificate is left out', async () => {
  const broken = '-----BEGIN CERTIFICATE-----\nAAAA\n-----END CERTIFICATE-----\n';
  const env = { NODE_EXTRA_CA_CERTS: '/nowhere.pem', SSL_CERT_FILE: shop.write('empty.pem', '') };
  expect(listTrusted(env, [])).toEqual([
    { source: '/nowhere.pem', certificates: [], fault: 'ENOENT' },
    { source: env.SSL_CERT_FILE, certificates: [], fault: 'there is no certificate in it' },
  ]);
  const certificates = listTrusted({ SSL_CERT_FILE: file }, [])[0]!.certificates;
  const mixed = [{ source: '', fault: null, certificates: [broken, ...certificates] }];
  expect(await ask(makeTrust(mixed))).toBe(200);
});

test('what Node trusts anyway needs nothing', () => {
  const certificates = [rootCertificates[0]!.replace(/\n(?!-)/g, '')];
  expect(makeTrust([{ source: '', fault: null, certificates }])).toEqual({});
});
