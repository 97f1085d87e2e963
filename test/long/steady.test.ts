import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { spawn } from 'node:child_process';
import { copyFileSync, mkdirSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { CHECKS } from '../../dist/src/checks/index.js';
import type { RunDocument } from '../../dist/src/core/run.js';
import { startStandIns, type StandIns } from '../../dist/demo/stand-ins/index.js';
import { Workshop } from '../support/program.js';
import { isSampled } from '../support/sample.js';

const DEMO = fileURLToPath(new URL('../../demo', import.meta.url));
/** How many of the examples take part besides some of the demo; `npm run drill` has all of both. */
const MOST = Number(process.env.MIVKET_STEADY ?? 0);

/** Each is rendered three times, once beside busy loops, ms. */
const LIMIT = 480_000 + MOST * 24_000;

/** What code does that chance could decide: a pointer, a chain of requests, something that comes about load. */
const BY_CHANCE = {
  'pointer.html': `<p id="bed">Sow</p><script>addEventListener("pointermove", () => (bed.style.width = "3000px"), { once: true });</script>`,
  'chain.html': `<p id="row">Sow</p><script>let n = 0; const next = () => fetch("https://tally.example/count.js?" + n).catch(() => 0).then(() => (++n < 9 ? next() : (row.style.width = "3000px"))); next();</script>`,
  'about-load.html': `<p id="tray">Sow</p><script>fetch("https://tally.example/count.js").catch(() => 0).then(() => (tray.style.width = "3000px"));</script>`,
  'film.html':
    '<video src="https://media.loam.example/rain.mp4" poster="https://static.rootcellar.example/talk.png" autoplay muted loop playsinline title="Rain" style="width: 100%"></video><p>Rain on the glasshouse</p>',
};

const shop = new Workshop();
let standIns: StandIns;

beforeAll(async () => {
  standIns = await startStandIns();
  mkdirSync(join(shop.folder, 'in'));
  const snippets = readdirSync(`${DEMO}/snippets`).filter((_, at) => isSampled(at, 24));
  for (const name of snippets)
    copyFileSync(`${DEMO}/snippets/${name}`, join(shop.folder, 'in', name));
  const house = readFileSync(`${DEMO}/mivket.yaml`, 'utf8');
  shop.write('mivket.yaml', house.replaceAll(/http:\/\/127\.0\.0\.1:\d+/g, standIns.origin));
  shop.write('host.html', readFileSync(`${DEMO}/host.html`));
  mkdirSync(join(shop.folder, 'public'));
  for (const name of readdirSync(`${DEMO}/public`))
    copyFileSync(`${DEMO}/public/${name}`, join(shop.folder, 'public', name));
  for (const [name, code] of Object.entries(BY_CHANCE)) shop.write(`in/${name}`, code);
  const examples = CHECKS.flatMap(({ id, examples: { faulty, sound } }) =>
    [faulty[0], sound[0]].flatMap((one, i) =>
      one && !one.under && id !== 'page-hangs' ? [{ name: `${id}-${i}.html`, code: one.code }] : [],
    ),
  );
  const step = Math.max(1, Math.floor(examples.length / Math.max(MOST, 1)));
  for (const { name, code } of examples.filter((_, i) => i % step === 0).slice(0, MOST))
    shop.write(`in/${name}`, code);
});

afterAll(async () => {
  await standIns.close();
  shop.close();
});

/** All that is said, measured times and bytes aside. */
function tell({ snippets }: RunDocument) {
  return snippets.map(({ name, verdict, fitsFrom, searched, findings, causes, mended, gaps }) => ({
    ...{ name, verdict, fitsFrom, searched, causes, mended, gaps },
    findings: findings.map(({ seen, ...rest }) => ({
      ...rest,
      seen: seen.map(({ measured: _measured, ...one }) => one),
    })),
  }));
}

async function audit(args: string[], busy = 0): Promise<ReturnType<typeof tell>> {
  const loops = Array.from({ length: busy }, () => spawn(process.execPath, ['-e', 'for (;;);']));
  const { document } = await shop.audit([
    'in',
    '--slot',
    'article',
    '--width',
    '320,1280',
    ...args,
  ]);
  for (const loop of loops) loop.kill('SIGKILL');
  return tell(document);
}

test(
  'the answer is the same whatever else is asked for, and whatever else the machine does',
  async () => {
    const alone = await audit(['--jobs', '4']);
    expect(alone.length).toBeGreaterThan(4);
    const shown = await audit(['--jobs', '1', '--save', 'report.html', '--pictures', 'sheets']);
    expect(shown).toEqual(alone);
    expect(await audit(['--jobs', '4'], 3)).toEqual(alone);
  },
  LIMIT,
);
