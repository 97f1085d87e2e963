// Side-by-side measurements, as ratios within one run: `npm run bench`. Prints a table and writes
// bench/results.md. With names as arguments only these: help, markup, loop, timer, one, again, memory, causes, ranges.
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { HOSTS, startStandIns } from '../dist/demo/stand-ins/index.js';
import { runBareLoop } from './bare-loop.js';
import { timeCauses, timeMarkup } from './in-process.js';
import { getPeak, getReroute, median, runAlone, runAudit } from './processes.js';
import {
  listDemo,
  listFaulty,
  listPastes,
  listPlain,
  listThirdWide,
  ONE,
  TIMER,
} from './snippets.js';

const ROOT = fileURLToPath(new URL('..', import.meta.url));
const MIVKET = join(ROOT, 'bin/mivket.js');
const ROUNDS = 3;
const WIDTHS = [320, 390, 768, 1024, 1280];
const wanted = process.argv.slice(2);
const work = mkdtempSync(join(tmpdir(), 'mivket-bench-'));
const rows = [];

try {
  if (wants('help')) measureHelp();
  if (wants('markup')) measureMarkup();
  if (wants('loop')) await measureLoop();
  if (wants('timer')) await measureTimer();
  if (wants('one')) await measureOne();
  if (wants('again')) await measureAgain();
  if (wants('memory')) await measureMemory();
  if (wants('causes')) await measureCauses();
  if (wants('ranges')) await measureRanges();
} finally {
  rmSync(work, { recursive: true, force: true });
}
report();

function wants(name) {
  return wanted.length === 0 || wanted.includes(name);
}

/** Start-up: `--help` against an empty Node. The least of several, taken in turn. */
function measureHelp() {
  const time = (args) => {
    const start = performance.now();
    spawnSync(process.execPath, args);
    return performance.now() - start;
  };
  const empty = [];
  const help = [];
  for (let i = 0; i < 12; i++) {
    empty.push(time(['-e', '0']));
    help.push(time([MIVKET, '--help']));
  }
  add(
    '`--help` against `node -e 0`',
    Math.min(...help) / Math.min(...empty),
    1.5,
    `${Math.round(Math.min(...help))} ms against ${Math.round(Math.min(...empty))} ms`,
  );
}

/** The audit against the loop that somebody would script by hand, on the same snippets and widths. */
async function measureLoop() {
  const standIns = await startStandIns();
  const texts = [...listDemo(), ...listPlain(12)];
  writeSnippets('loop', texts);
  const house = writeHouse(standIns.origin);
  const loops = [];
  const audits = [];
  for (let round = 0; round < ROUNDS; round++) {
    loops.push(await runBareLoop(texts, WIDTHS, getReroute(standIns.origin)));
    audits.push(
      await runAudit([
        'audit',
        join(work, 'loop'),
        '--house',
        house,
        '--no-ranges',
        '--format',
        'json',
      ]),
    );
  }
  await standIns.close();
  const renders = texts.length * WIDTHS.length;
  const each = (times) => `${Math.round(median(times) / renders)} ms`;
  add(
    `audit against the bare loop, ${texts.length} snippets × ${WIDTHS.length} widths`,
    median(audits) / median(loops),
    0.37,
    `${each(audits)} a render against ${each(loops)}`,
  );
}

/** One widget that fills itself and adds more after 2 s, against the loop that waits for that at each width. */
async function measureTimer() {
  const title = 'one paste that adds more after 2 s, at 4 widths, against a loop that waits';
  const runLoop = (widths) => runBareLoop([TIMER], widths, {}, 2000);
  await measurePaste({ name: 'timer', text: TIMER, options: [], title, limit: 0.35 }, runLoop);
}

/** What one person waits for: one paste, from start to answer, against the loop with its start. */
async function measureOne() {
  const standIns = await startStandIns();
  const options = ['--house', writeHouse(standIns.origin)];
  for (const [kind, text] of Object.entries(ONE)) {
    const title = `one paste, ${kind}, at 4 widths, against a bare loop with its start`;
    const limit = kind === 'sound' ? 0.8 : 1.2;
    const runLoop = (widths) => runAlone(work, [text], widths, getReroute(standIns.origin));
    await measurePaste({ name: `one-${kind}`, text, options, title, limit }, runLoop);
  }
  await standIns.close();
}

async function measurePaste({ name, text, options, title, limit }, runLoop) {
  const widths = [320, 390, 768, 1280];
  writeSnippets(name, [text]);
  const [loops, audits] = [[], []];
  for (let round = 0; round < ROUNDS; round++) {
    loops.push(await runLoop(widths));
    audits.push(await runAudit(['audit', join(work, name), ...options, '--width', widths.join()]));
  }
  const [audit, loop] = [Math.round(median(audits)), Math.round(median(loops))];
  add(title, audit / loop, limit, `${audit} ms against ${loop} ms`);
}

/** A kept run that is replayed from a recording, and the same once more with nothing changed. */
async function measureAgain() {
  const standIns = await startStandIns();
  writeSnippets('again', [...listDemo(), ...listPlain(12)]);
  const house = writeHouse(standIns.origin);
  const common = ['audit', join(work, 'again'), '--house', house, '--format', 'json'];
  const har = join(work, 'again.har');
  await runAudit([...common, '--record', har]);
  await standIns.close();
  const firsts = [];
  const agains = [];
  for (let round = 0; round < ROUNDS; round++) {
    const replay = [...common, '--replay', har, '--keep', join(work, `kept${round}`)];
    firsts.push(await runAudit(replay));
    agains.push(await runAudit(replay));
  }
  add(
    'an unchanged replayed run once more, against the first',
    median(agains) / median(firsts),
    0.1,
    `${Math.round(median(agains))} ms against ${Math.round(median(firsts))} ms`,
  );
}

/**
 * The greatest memory of all processes of a run, over 50 and 500 snippets. How many processes there are changes
 * from moment to moment: the short run is made several times, so that both are looked at as often.
 */
async function measureMemory() {
  const standIns = await startStandIns();
  const house = writeHouse(standIns.origin);
  const texts = [...listDemo(), ...listPlain(12)];
  const peaks = [];
  for (const count of [50, 500]) {
    const many = Array.from(
      { length: count },
      (_, i) => `${texts[i % texts.length]}\n<!-- ${i} -->`,
    );
    writeSnippets(`m${count}`, many);
    const audit = ['audit', join(work, `m${count}`), '--house', house];
    const found = [];
    for (let run = 0; run < 500 / count; run++)
      found.push(await getPeak([...audit, '--width', '390', '--format', 'json']));
    peaks.push(Math.max(...found));
  }
  await standIns.close();
  add(
    'peak memory, 500 snippets against 50',
    peaks[1] / peaks[0],
    1.1,
    peaks
      .map((kb) => `${Math.round(kb / 1024)} MB`)
      .reverse()
      .join(' against '),
  );
}

/** What it costs to try the windows between the widths, for snippets without scripts and with them. */
async function measureRanges() {
  const script = '<script>document.currentScript.previousElementSibling.dataset.bed = 1;</script>';
  const still = listThirdWide(24);
  const sets = { without: still, with: still.map((text) => text + script) };
  for (const [kind, texts] of Object.entries(sets)) {
    writeSnippets(`ranges-${kind}`, texts);
    const audit = ['audit', join(work, `ranges-${kind}`), '--format', 'json'];
    const found = [];
    const bare = [];
    for (let round = 0; round < ROUNDS; round++) {
      bare.push(await runAudit([...audit, '--no-ranges']));
      found.push(await runAudit(audit));
    }
    add(
      `what searching windows adds to an audit, snippets ${kind} scripts`,
      median(found) / median(bare) - 1,
      kind === 'with' ? 0.6 : 0.15,
      `${Math.round(median(found))} ms against ${Math.round(median(bare))} ms`,
    );
  }
}

/** Markup alone: a thousand pastes of 2 kB read and judged, against parsing them with the same parser. */
function measureMarkup() {
  const { parsed, judged } = timeMarkup(listPastes(1000));
  add(
    'reading and judging the markup of 1,000 pastes of 2 kB, against parsing it',
    median(judged) / median(parsed),
    3,
    `${Math.round(median(judged))} ms against ${Math.round(median(parsed))} ms`,
  );
}

/** What finding causes and cures adds to the renders of sound snippets, and of faulty ones. */
async function measureCauses() {
  const sound = listPlain(12);
  const faulty = listFaulty(12);
  for (const [kind, texts] of Object.entries({ sound, faulty })) {
    const { without, found } = await timeCauses(texts);
    add(
      `what finding causes adds to rendering, ${kind} snippets`,
      median(found) / median(without) - 1,
      kind === 'sound' ? 0.1 : 0.5,
      `${Math.round(median(found))} ms against ${Math.round(median(without))} ms`,
    );
  }
}

function writeSnippets(name, texts) {
  const folder = join(work, name);
  execFileSync('mkdir', ['-p', folder]);
  texts.forEach((text, i) =>
    writeFileSync(join(folder, `${String(i).padStart(4, '0')}.html`), text),
  );
}

function writeHouse(origin) {
  const lines = [
    'viewports:',
    ...WIDTHS.map((width) => `  - { name: w${width}, width: ${width} }`),
    'reroute:',
    ...HOSTS.map((host) => `  "${host}": ${origin}`),
  ];
  const file = join(work, 'mivket.yaml');
  writeFileSync(file, lines.join('\n'));
  return file;
}

function add(what, ratio, limit, figures) {
  rows.push({ what, ratio, limit, figures });
}

function report() {
  const lines = rows.map(
    ({ what, ratio, limit, figures }) =>
      `| ${what} | ${ratio.toFixed(2)} | ${limit} | ${figures} |`,
  );
  const table = [
    '| measured side by side | ratio | at most | figures |',
    '| --- | --- | --- | --- |',
    ...lines,
  ].join('\n');
  console.log(table);
  if (wanted.length === 0)
    writeFileSync(
      join(ROOT, 'bench/results.md'),
      `# Measurements\n\nWritten by \`npm run bench\`. Only the ratios mean anything: both sides ran in turn on one machine.\n\n${table}\n`,
    );
}
