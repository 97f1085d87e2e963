import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { spawn } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { join } from 'node:path';
import { listen } from '../support/listen.js';
import { findProcesses } from '../support/processes.js';
import { getIds, Workshop } from '../support/program.js';
import type { RunDocument } from '../../dist/src/core/run.js';

/** How often a run is tried; `npm run drill` tries more. */
const RUNS = Number(process.env.MIVKET_KILLS ?? 1);
const SNIPPETS = 8;

const shop = new Workshop();
let vendor: Server;
let asked = 0;
let onAsked: () => void = () => undefined;

beforeAll(async () => {
  vendor = createServer((_ask, answer) => {
    asked++;
    onAsked();
    answer.setHeader('content-type', 'text/javascript').end('window.sown = true;');
  });
  const port = await listen(vendor);
  shop.write('mivket.yaml', `reroute: { "tally.example": "http://127.0.0.1:${port}" }`);
  for (let i = 1; i <= SNIPPETS; i++) {
    const wide = i % 5 === 0 ? ' style="width: 1300px; height: 20px"' : '';
    const script = i % 2 ? `<script async src="https://tally.example/${i}.js"></script>` : '';
    shop.write(`in/${i}.html`, `<p${wide}>Sow ${i}</p><img src="data:,${i}" alt="">${script}`);
  }
});

afterAll(() => {
  vendor.close();
  shop.close();
});

/** An audit whose browser is ended while the n-th answer is given; null: none is. */
async function audit(
  killAt: number | null,
): Promise<{ code: number | null; document: RunDocument; saved: string }> {
  asked = 0;
  onAsked = () => {
    if (asked !== killAt) return;
    const leaders = findProcesses(shop.temporary).filter(({ pid, group }) => pid === group);
    for (const { pid } of leaders) process.kill(pid, 'SIGKILL');
  };
  const args = ['audit', 'in', '--format', 'json', '--save', 'run.json', '--width', '390,1280'];
  const { code, out, err } = await shop.run(args);
  expect(err).not.toMatch(/inside Mivket/);
  const saved = readFileSync(join(shop.folder, 'run.json'), 'utf8');
  return { code, document: JSON.parse(out) as RunDocument, saved };
}

const tell = ({ snippets }: RunDocument) =>
  snippets.map(({ name, verdict, gaps }) => [name, verdict, gaps.map(({ why }) => why)]);

/** Moments that look like chance, and are the same each time. */
function* deal(most: number): Generator<number> {
  for (let seed = 7; ; seed = (seed * 1103515245 + 12345) % 2 ** 31) yield 1 + (seed % most);
}

describe('a browser that is ended at any moment costs nobody anything', () => {
  test(
    `${RUNS} times`,
    async () => {
      const whole = await audit(null);
      expect(whole.code).toBe(1);
      const moments = deal(asked);
      for (let run = 0; run < RUNS; run++) {
        // Every other time the processors have other things to do.
        const busy = run % 2 ? [0, 1].map(() => spawn(process.execPath, ['-e', 'for (;;);'])) : [];
        const killed = await audit(moments.next().value as number);
        for (const one of busy) one.kill('SIGKILL');
        expect(getIds(killed.document)).toEqual(getIds(whole.document));
        expect(tell(killed.document)).toEqual(tell(whole.document));
        expect(killed.code).toBe(1);
        expect(getIds(JSON.parse(killed.saved) as RunDocument)).toEqual(getIds(whole.document));
      }
      expect(readdirSync(shop.temporary)).toEqual([]);
    },
    100_000 + RUNS * 60_000,
  );
});
