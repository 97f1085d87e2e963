import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { createServer, type Server } from 'node:http';
import { join } from 'node:path';
import type { RunDocument } from '../../dist/src/core/run.js';
import { listen } from '../support/listen.js';
import { Workshop } from '../support/program.js';

const shop = new Workshop();
let vendors: Server;

beforeAll(async () => {
  vendors = createServer((_, answer) => {
    answer.writeHead(200, { 'content-type': 'text/javascript' }).end('window.tally = 1;');
  });
  const origin = `http://127.0.0.1:${await listen(vendors)}`;
  shop.write(
    'mivket.yaml',
    `viewports: [{ name: phone, width: 390 }, { name: desktop, width: 1280 }]\nreroute: { "*.fernmap.example": "${origin}" }`,
  );
});
afterAll(() => {
  vendors.close();
  shop.close();
});

const SCRIPT = (name: string, how: string) =>
  `<script ${how} src="https://${name}.fernmap.example/a.js"></script>`;
const CODE = `<p>Sow in May.</p>${SCRIPT('one', 'async')}${SCRIPT('two', '')}`;

const listHarms = ({ snippets }: RunDocument) =>
  snippets[0]!.findings
    .filter(({ id }) => id === 'outage-harms-page')
    .map(({ message, where, seen }) => [message, where.column, seen.map((one) => one.variant)]);

test('with --outage each vendor is silent in turn, and who takes parts of the page along is told', async () => {
  const usual = await shop.audit(['--code', CODE]);
  expect([listHarms(usual.document), usual.document.checks]).toEqual([
    [],
    expect.not.arrayContaining(['outage-harms-page']),
  ]);
  const drilled = await shop.audit(['--code', CODE, '--outage', '--keep', 'run']);
  const harms = [
    [
      expect.stringMatching(
        /^While two\.fernmap\.example does not answer, the footer.* not shown: all of it comes when there is an answer after ten seconds\./,
      ),
      CODE.lastIndexOf('<script') + 1,
      ['outage:two.fernmap.example'],
    ],
  ];
  expect(listHarms(drilled.document)).toEqual(harms);
  expect([drilled.document.notJudged, drilled.document.verdict]).toEqual([[], 'clear']);
  // What was kept of it is judged again.
  const again = await shop.run(['judge', join(shop.folder, 'run'), '--format', 'json']);
  expect(listHarms(JSON.parse(again.out) as RunDocument)).toEqual(harms);
});
