// Holds this build against another checkout's: `npm run same -- ../other`. The demo and the examples of all
// checks are audited by both, and whatever their run documents tell differently is said. Measured times and
// bytes are left out, and keys that the other does not have yet.
import { spawn } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { CHECKS } from '../dist/src/checks/index.js';
import { HOSTS, startStandIns } from '../dist/demo/stand-ins/index.js';

const HERE = fileURLToPath(new URL('..', import.meta.url));
const MOST_TOLD = 20;
/** Whether what is asked for twice comes twice is chance. */
const TRAFFIC = ['requests', 'failed', 'wire', 'unpacked'];
/** What is measured differs from one run to the next; so does what a run says of itself. */
const MEASURED = new Set(['measured', 'startedAt', 'durationMs', ...TRAFFIC]);

const [other] = process.argv.slice(2);
if (!other) throw new Error('Which checkout to hold it against? npm run same -- ../other');
const folder = mkdtempSync(join(tmpdir(), 'mivket-same-'));
const standIns = await startStandIns();
try {
  const sets = [writeDemo(), ...writeExamples()];
  let differences = 0;
  let snippets = 0;
  for (const set of sets) {
    const before = await audit(resolve(other), set);
    const after = await audit(HERE, set);
    snippets += after.snippets.length;
    for (const line of listDifferences(before, after)) {
      if (++differences <= MOST_TOLD) process.stdout.write(`${set}: ${line}\n`);
    }
  }
  process.stdout.write(`${snippets} snippets, ${differences} differences\n`);
  process.exitCode = differences > 0 ? 1 : 0;
} finally {
  await standIns.close();
  rmSync(folder, { recursive: true });
}

function writeDemo() {
  const to = join(folder, 'demo');
  cpSync(join(HERE, 'demo/snippets'), join(to, 'in'), { recursive: true });
  cpSync(join(HERE, 'demo/public'), join(to, 'public'), { recursive: true });
  cpSync(join(HERE, 'demo/host.html'), join(to, 'host.html'));
  writeHouse(to, { page: 'host.html', root: 'public' });
  return to;
}

/** A folder for each house that examples are under. */
function writeExamples() {
  const houses = new Map();
  for (const { id, examples } of CHECKS)
    for (const kind of ['faulty', 'sound'])
      examples[kind].forEach(({ code, under = {} }, i) => {
        const key = JSON.stringify(under);
        if (!houses.has(key)) houses.set(key, join(folder, `examples-${houses.size}`));
        mkdirSync(join(houses.get(key), 'in'), { recursive: true });
        writeFileSync(join(houses.get(key), 'in', `${id}-${kind}-${i}.html`), code);
      });
  for (const [key, to] of houses) {
    const { page, ...house } = JSON.parse(key);
    if (page) writeFileSync(join(to, 'host.html'), page);
    writeHouse(to, { ...house, ...(page && { page: 'host.html' }) });
  }
  return [...houses.values()];
}

/** What is JSON is YAML. */
function writeHouse(to, house) {
  const viewports = [
    { name: 'phone', width: 320 },
    { name: 'desktop', width: 1280 },
  ];
  const reroute = Object.fromEntries(HOSTS.map((host) => [host, standIns.origin]));
  writeFileSync(join(to, 'mivket.yaml'), JSON.stringify({ viewports, ...house, reroute }));
}

function audit(checkout, cwd) {
  const args = ['audit', 'in', '--house', 'mivket.yaml', '--format', 'json', '--jobs', '4'];
  const child = spawn(process.execPath, [join(checkout, 'bin/mivket.js'), ...args], { cwd });
  let out = '';
  let said = '';
  child.stdout.on('data', (chunk) => (out += chunk));
  child.stderr.on('data', (chunk) => (said += chunk));
  return new Promise((resolve, reject) => {
    child.on('close', (code) => {
      if (out === '') reject(new Error(`${checkout} ended with ${code}: ${said}`));
      else resolve(JSON.parse(out));
    });
  });
}

/** Where two documents differ, as far as the first goes. In what order gaps are told says nothing. */
function listDifferences(before, after, at = '') {
  if (/\.gaps$/.test(at)) [before, after] = [before, after].map(sortGaps);
  if (before === null || typeof before !== 'object' || after === null || typeof after !== 'object')
    return before === after ? [] : [`${at}: ${show(before)} → ${show(after)}`];
  const grown = Array.isArray(before) && before.length !== after.length;
  if (grown)
    return [`${at}: ${before.length} → ${after.length} (${show(before)} → ${show(after)})`];
  return Object.keys(before)
    .filter((key) => !MEASURED.has(key))
    .flatMap((key) =>
      listDifferences(before[key], after[key], `${at}.${before[key]?.name ?? key}`),
    );
}

function sortGaps(gaps) {
  return [...gaps].sort((a, b) => (JSON.stringify(a) < JSON.stringify(b) ? -1 : 1));
}

function show(value) {
  return (JSON.stringify(value) ?? 'nothing').slice(0, 300);
}
