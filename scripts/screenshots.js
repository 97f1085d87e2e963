// Takes the pictures in docs/screenshots from the demo data: a real terminal window under Xvfb, and
// the report in the browser that comes along. Needs Xvfb, xterm and ImageMagick's `import`.
import { spawn, spawnSync } from 'node:child_process';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  rmSync,
  watch,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import puppeteer from 'puppeteer-core';
import { findBrowser } from '../dist/src/render/browser/find.js';

const ROOT = fileURLToPath(new URL('..', import.meta.url));
const FOLDER = join(ROOT, 'docs/screenshots');
const DISPLAY = ':97';

/** Name of the picture, and what is typed. */
const SHOTS = [
  ['audit', 'node bin/mivket.js audit demo/snippets/map.html --house demo/mivket.yaml --quiet'],
  [
    'audit-clear',
    'node bin/mivket.js audit demo/snippets/booking.html demo/snippets/hero-film.html --house demo/mivket.yaml --quiet',
  ],
  [
    'reply',
    'node bin/mivket.js audit demo/snippets/map.html demo/snippets/watch-page.html --house demo/mivket.yaml --slot article --quiet --format reply',
  ],
  [
    'mend',
    'node bin/mivket.js mend demo/snippets/map.html demo/snippets/open-box.html --house demo/mivket.yaml',
  ],
  [
    'compare',
    'node bin/mivket.js compare demo/snippets/map.html demo/snippets/noticeboard.html demo/snippets/counter.html --house demo/mivket.yaml --slot article',
  ],
  [
    'check-live',
    'node bin/mivket.js check-live https://www.seedletter.example/spring --snippet demo/snippets/booking.html,demo/snippets/calendar.html --house demo/mivket.yaml',
  ],
  [
    'demo',
    'node bin/mivket.js demo --quiet | tail -n 6; node bin/mivket.js demo --quiet --format json | head -n 30',
  ],
  ['help', 'node bin/mivket.js --help; node bin/mivket.js judge --help'],
  ['help-audit', 'node bin/mivket.js audit --help'],
  ['explain', 'node bin/mivket.js explain; node bin/mivket.js explain page-scrolls-sideways'],
  ['doctor', 'node bin/mivket.js doctor'],
  [
    'init',
    'rm -f /tmp/mivket-shot-init.yaml; node bin/mivket.js init /tmp/mivket-shot-init.yaml --slot article:680 --width 320,1280; head -n 24 /tmp/mivket-shot-init.yaml',
  ],
  [
    'house-error',
    'printf "slots:\\n  article: { widht: 680 }\\n" > /tmp/mivket-shot.yaml; node bin/mivket.js audit demo/snippets/map.html --house /tmp/mivket-shot.yaml',
  ],
];

mkdirSync(FOLDER, { recursive: true });
const server = spawn('Xvfb', [DISPLAY, '-screen', '0', '1280x800x24', '-nolisten', 'tcp'], {
  stdio: 'ignore',
});
const standIns = spawn(process.execPath, ['bin/mivket.js', 'demo', '--serve'], {
  cwd: ROOT,
  stdio: ['ignore', 'ignore', 'pipe'],
});
await new Promise((resolve) => standIns.stderr.once('data', resolve));
await untilDisplay();
try {
  const only = process.argv.slice(2);
  for (const [name, command] of SHOTS)
    if (only.length === 0 || only.includes(name)) await shoot(name, command);
  if (only.length === 0 || only.includes('report')) await shootReport();
  if (only.length === 0 || only.includes('beside')) await shootBeside();
} finally {
  standIns.kill('SIGINT');
  server.kill();
}

async function shoot(name, command) {
  const work = mkdtempSync(join(tmpdir(), 'mivket-shot-'));
  const done = join(work, 'done');
  const shown = command.replaceAll('node bin/mivket.js', 'mivket').replaceAll('"', '\\"');
  const script = `cd ${ROOT}; PS1=''; clear; printf '$ %s\\n\\n' "${shown.replaceAll('\\n', '\\\\n')}"; ${command}; touch ${done}; sleep 60`;
  writeFileSync(join(work, 'run.sh'), script);
  const look = [
    '-fa',
    'DejaVu Sans Mono',
    '-fs',
    '11',
    '-bg',
    '#1d1b18',
    '-fg',
    '#faf8f4',
    '-geometry',
    '138x46+0+0',
    '+sb',
  ];
  const env = { ...process.env, DISPLAY, COLORTERM: 'truecolor', TERM: 'xterm-256color' };
  const terminal = spawn('xterm', [...look, '-e', 'bash', join(work, 'run.sh')], {
    env,
    stdio: 'ignore',
  });
  await Promise.race([untilThere(work, done), failure(terminal, name)]);
  // The window paints what it was given within a frame or two; `import` asks the server, after it.
  spawnSync('xrefresh', [], { env });
  await new Promise((resolve) => setTimeout(resolve, 500));
  spawnSync('import', ['-window', 'root', join(FOLDER, `${name}.png`)], { env });
  terminal.kill();
  rmSync(work, { recursive: true, force: true });
  console.log(`docs/screenshots/${name}.png`);
}

/** The HTML report, light and dark, and the contact sheet of one snippet. */
async function shootReport() {
  const work = mkdtempSync(join(tmpdir(), 'mivket-shot-'));
  const snippets = ['map', 'bean-box', 'hero-film', 'open-box'].map(
    (n) => `demo/snippets/${n}.html`,
  );
  const out = ['--save', join(work, 'report.html'), '--pictures', work, '--quiet'];
  const args = ['bin/mivket.js', 'audit', ...snippets, '--house', 'demo/mivket.yaml', ...out];
  spawnSync(process.execPath, args, { cwd: ROOT, stdio: 'ignore' });
  copyFileSync(join(work, 'map.html.png'), join(FOLDER, 'sheet.png'));
  const { browser, page } = await openPage(join(work, 'report.html'));
  await page.screenshot({ path: join(FOLDER, 'report.png') });
  await page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: 'dark' }]);
  await page.evaluate(() => document.querySelector('article').scrollIntoView());
  await page.screenshot({ path: join(FOLDER, 'report-finding.png') });
  await browser.close();
  rmSync(work, { recursive: true, force: true });
  console.log('docs/screenshots/report.png, report-finding.png, sheet.png');
}

/** A snippet before and after it was mended, side by side. */
async function shootBeside() {
  const work = mkdtempSync(join(tmpdir(), 'mivket-shot-'));
  const run = (...args) =>
    spawnSync(
      process.execPath,
      [join(ROOT, 'bin/mivket.js'), ...args, '--house', join(ROOT, 'demo/mivket.yaml')],
      { cwd: work, stdio: 'ignore' },
    );
  copyFileSync(join(ROOT, 'demo/snippets/map.html'), join(work, 'map.html'));
  copyFileSync(join(work, 'map.html'), join(work, 'map-mended.html'));
  run('mend', 'map-mended.html', '--write');
  run(
    'compare',
    'map.html',
    'map-mended.html',
    '--slot',
    'article',
    '--width',
    '320,768',
    '--save',
    'beside.html',
  );
  run('mend', 'map.html', '--slot', 'article', '--width', '320,768', '--save', 'mended.html');
  const published = 'https://www.seedletter.example/spring';
  const cleared = join(ROOT, 'demo/snippets/calendar.html');
  run(
    'check-live',
    published,
    '--snippet',
    cleared,
    '--width',
    '320,768',
    '--save',
    'published.html',
  );
  for (const name of ['beside', 'mended', 'published']) {
    const { browser, page } = await openPage(join(work, `${name}.html`));
    if (name === 'beside') await page.evaluate(() => document.querySelector('h2').scrollIntoView());
    await page.screenshot({ path: join(FOLDER, `${name}.png`) });
    await browser.close();
  }
  rmSync(work, { recursive: true, force: true });
  console.log('docs/screenshots/beside.png, mended.png, published.png');
}

async function openPage(file) {
  const program = await findBrowser();
  const browser = await puppeteer.launch({
    executablePath: program.path,
    headless: 'shell',
    env: { ...process.env, ...program.env },
    args: process.getuid?.() === 0 ? ['--no-sandbox'] : [],
  });
  const page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  await page.goto(pathToFileURL(file).href);
  return { browser, page };
}

function untilThere(folder, file) {
  return new Promise((resolve) => {
    const look = () => {
      if (!existsSync(file)) return;
      watcher.close();
      resolve();
    };
    const watcher = watch(folder, look);
    // It may have come before anybody watched.
    look();
  });
}

/** A terminal that ends before its command has is no picture. */
function failure(terminal, name) {
  return new Promise((_, reject) => {
    terminal.once('exit', () => reject(new Error(`the terminal of ${name} ended`)));
  });
}

async function untilDisplay() {
  while (spawnSync('xdpyinfo', ['-display', DISPLAY], { stdio: 'ignore' }).status !== 0) {
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}
