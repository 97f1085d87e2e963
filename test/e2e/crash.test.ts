import { afterAll, expect, test } from '@jest/globals';
import { readdirSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { findProcesses } from '../support/processes.js';
import { getIds, Workshop } from '../support/program.js';
import type { RunDocument } from '../../dist/src/core/run.js';

const shop = new Workshop();
let vendor: Server | undefined;
afterAll(() => {
  vendor?.close();
  shop.close();
});

/** The browser of this test: the group leader that works on a profile in our own temporary folder. */
function findBrowserProcess(): number {
  const leader = findProcesses(shop.temporary).find(({ pid, group }) => pid === group);
  return leader!.pid;
}

test('a browser that is killed costs only what it was at: another takes over', async () => {
  let asked = 0;
  const first = new Promise<void>((resolve) => {
    vendor = createServer((_ask, answer) => {
      asked++;
      // The first is never answered: the browser is killed while it waits.
      if (asked === 1) resolve();
      else answer.setHeader('content-type', 'text/javascript').end('window.x = 1;');
    });
  });
  await new Promise<void>((resolve) => vendor!.listen(0, '127.0.0.1', resolve));
  const { port } = vendor!.address() as AddressInfo;
  shop.write(
    'mivket.yaml',
    `viewports: [{ name: phone, width: 390 }]\nreroute: { "slow.loam.example": "http://127.0.0.1:${port}" }`,
  );
  shop.write('in/1.html', '<img src="x.png">');
  shop.write('in/2.html', '<p>Sow</p><script async src="https://slow.loam.example/a.js"></script>');
  shop.write('in/3.html', '<p>Reap</p>');
  const { done } = shop.start(['audit', 'in', '--format', 'json', '--jobs', '1']);
  await first;
  process.kill(findBrowserProcess(), 'SIGKILL');
  const { code, out } = await done;
  expect(code).toBe(1);
  const document = JSON.parse(out) as RunDocument;
  expect(getIds(document)).toEqual({
    '1.html': ['picture-without-alt'],
    '2.html': [],
    '3.html': [],
  });
  expect(document.snippets.map(({ verdict }) => verdict)).toEqual(['hold', 'clear', 'clear']);
  expect(asked).toBe(3);
  expect(readdirSync(shop.temporary)).toEqual([]);
});
