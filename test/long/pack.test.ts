import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { createHash } from 'node:crypto';
import { mkdirSync, readFileSync, symlinkSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { basename, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { RunDocument } from '../../dist/src/core/run.js';
import { getIds, Workshop } from '../support/program.js';
import { listen } from '../support/listen.js';

const ROOT = fileURLToPath(new URL('../..', import.meta.url));
const BROWSER = '@mivket/browser-linux-x64';
const shop = new Workshop();
const packed = new Map<string, string>();
let registry: Server;
let scope: string;

/** What npm would publish, asked for by nobody but npm's own commands. */
beforeAll(async () => {
  for (const folder of ['.', 'packages/browser-linux-x64']) {
    const args = ['pack', '--ignore-scripts', '--json', '--pack-destination', shop.folder];
    const { code, out } = await shop.launch('npm', [...args, join(ROOT, folder)]).done;
    expect(code).toBe(0);
    const [made] = JSON.parse(out) as { name: string; filename: string }[];
    packed.set(made!.name, join(shop.folder, basename(made!.filename)));
  }
  registry = createServer((ask, answer) => {
    const path = decodeURIComponent(ask.url!.slice(1));
    if (path === 'archive') return void answer.end(readFileSync(packed.get(BROWSER)!));
    if (path !== BROWSER) return void answer.writeHead(404).end('{}');
    answer.end(JSON.stringify(describe(BROWSER, `http://${ask.headers.host}/archive`)));
  });
  scope = `--@mivket:registry=http://127.0.0.1:${await listen(registry)}/`;
}, 60_000);

afterAll(() => {
  registry.closeAllConnections();
  registry.close();
  shop.close();
});

const readAbout = (name: string) =>
  JSON.parse(readFileSync(join(ROOT, name, 'package.json'), 'utf8')) as Record<string, unknown> & {
    version: string;
  };

/** A package as a registry tells of it. */
function describe(name: string, tarball: string) {
  const about = readAbout('packages/browser-linux-x64');
  const made = createHash('sha512').update(readFileSync(packed.get(name)!));
  const dist = { tarball, integrity: `sha512-${made.digest('base64')}` };
  const versions = { [about.version]: { ...about, dist } };
  return { name, 'dist-tags': { latest: about.version }, versions };
}

/** Installs what npm would publish into an empty folder; resolves to the folder. */
async function install(name: string, args: string[]): Promise<string> {
  const folder = join(shop.folder, name);
  mkdirSync(folder);
  shop.write(`${name}/package.json`, '{ "private": true }');
  const common = ['install', '--prefer-offline', '--no-audit', '--no-fund', '--prefix', folder];
  const { code, err } = await shop.launch('npm', [...common, packed.get('mivket')!, ...args]).done;
  expect({ code, err: code === 0 ? '' : err }).toEqual({ code: 0, err: '' });
  return folder;
}

function run(folder: string, args: string[], env: Record<string, string> = {}) {
  return shop.launch(join(folder, 'node_modules/.bin/mivket'), args, env).done;
}

const AUDIT = ['audit', '--quiet', '--width', '390', '--code', '<img src="data:,">'];

test('the packages that belong together have one version', () => {
  const { version, optionalDependencies } = readAbout('.');
  for (const name of ['packages/browser-linux-x64', 'packages/fonts-cjk'])
    expect(readAbout(name).version).toBe(version);
  expect(optionalDependencies).toEqual({ [BROWSER]: version });
});

test('installed into an empty folder it audits with its own browser, and runs its demo', async () => {
  const folder = await install('fits', [scope]);
  const env = { XDG_CACHE_HOME: join(folder, 'cache'), PATH: process.env.PATH! };
  const { code, out, err } = await run(folder, AUDIT, env);
  expect({ code, err }).toMatchObject({ code: 1 });
  expect(out).toContain('picture-without-alt');
  const doctor = await run(folder, ['doctor'], env);
  expect(doctor.out).toMatch(/\(came along with\s+Mivket\)/);
  expect(doctor.out.replace(/\s+/g, ' ')).toContain('npm install @mivket/fonts-cjk');
  await seeDemo(folder, env);
}, 420_000);

/** It says what it found, and what it says to try next works. */
async function seeDemo(folder: string, env: Record<string, string>): Promise<void> {
  const here = (command: string) => shop.launch('sh', ['-c', command], env, folder).done;
  const { code, out, err } = await here('npx mivket demo --format json');
  expect(code).toBe(0);
  const hints = [...err.matchAll(/^ {2}((?:npx|cp) .*)$/gm)].map(([, command]) => command!);
  expect(hints).toEqual([
    expect.stringMatching(/ audit --code /),
    expect.stringMatching(/ demo --open$/),
    expect.stringMatching(/ demo --serve$/),
    expect.stringMatching(/ check-live https:.* --snippet .* --house /),
    expect.stringMatching(/^cp /),
  ]);
  const first = await here(hints[0]!);
  expect([first.code, first.out]).toEqual([1, expect.stringContaining('page-scrolls-sideways')]);
  const last = await here(hints.at(-1)!);
  expect([last.code, last.err]).toEqual([0, '']);
  const own = await here("npx mivket audit --format json --code '<p>Sow</p>'");
  const { snippets } = JSON.parse(own.out) as RunDocument;
  expect([own.code, snippets[0]!.renders.length]).toEqual([0, 8]);
  const demo = JSON.parse(out) as RunDocument;
  // All that the search found is shown.
  const whys = demo.snippets.flatMap(({ gaps }) => gaps.map(({ why }) => why));
  expect(whys.filter((why) => why.startsWith('more seems'))).toEqual([]);
  expect(getIds(demo)).toEqual({
    'bean-box.html': ['page-scrolls-sideways', 'picture-without-alt'],
    'booking.html': [],
    'calendar.html': [],
    'counter.html': ['script-weight-over-limit'],
    'desk-logo.html': ['host-private-address'],
    'greeting.html': ['page-taken-over'],
    'hero-film.html': ['autoplay-with-sound', 'media-without-captions'],
    'map.html': ['page-scrolls-sideways', 'frame-fixed-size', 'off-centre'],
    'noticeboard.html': ['frame-fixed-size', 'off-centre', 'too-small-on-phone'],
    'open-box.html': ['tag-left-open', 'linked-picture-unnamed'],
    'price-list.html': ['page-scrolls-sideways'],
    'rain-loop.html': ['autoplay-value-ignored', 'autoplay-value-ignored'],
    'watch-page.html': ['frame-refused', 'attribute-misspelt', 'frame-unnamed'],
  });
}

// One more install: in the drill.
const drilled = process.env.MIVKET_ALL === undefined ? test.skip : test;
drilled(
  'where the browser does not fit the system, installing goes through without it',
  async () => {
    const folder = await install('fits-not', [scope, '--cpu=arm64']);
    const { code, out, err } = await run(folder, [...AUDIT, '--browser', '/nowhere/chrome']);
    expect([code, out]).toEqual([3, '']);
    expect(err).toMatch(/^mivket: --browser names "\/nowhere\/chrome"/);
    const list = await shop.launch('npm', ['ls', '--all', '--json', '--prefix', folder]).done;
    expect(list.out).toContain('"mivket"');
    expect(list.out).not.toContain('@sparticuz/chromium');
    const markup = await run(folder, [...AUDIT, '--markup-only']);
    expect(markup.code).toBe(1);
  },
  120_000,
);

test('as a library it audits, and every type that it mentions is there', async () => {
  const folder = join(shop.folder, 'fits');
  // The compiler itself is ours: what is published has to bring all else.
  mkdirSync(join(folder, 'node_modules/@types'), { recursive: true });
  for (const name of ['typescript', '@types/node', 'undici-types'])
    symlinkSync(join(ROOT, 'node_modules', name), join(folder, 'node_modules', name));
  const example = /```ts\n([\s\S]*?)```/.exec(readFileSync(join(ROOT, 'README.md'), 'utf8'))![1]!;
  shop.write('fits/audit.mts', example);
  const env = { XDG_CACHE_HOME: join(folder, 'cache'), PATH: process.env.PATH! };
  const strict = ['--strict', '--module', 'nodenext', '--target', 'es2023', 'audit.mts'];
  const tsc = join(folder, 'node_modules/typescript/bin/tsc');
  const compiled = await shop.launch(process.execPath, [tsc, ...strict], env, folder).done;
  expect(compiled).toMatchObject({ code: 0, out: '' });
  const ran = await shop.launch(process.execPath, ['audit.mjs'], env, folder).done;
  expect(ran.err).toBe('');
  expect(ran.out).toMatch(/^map: hold/m);
}, 420_000);
