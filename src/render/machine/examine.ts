import { access, constants, realpath, stat, statfs } from 'node:fs/promises';
import { connect, createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { dirname } from 'node:path';
import type { BrowserFact, MachineFacts } from '../../core/doctor/diagnose.js';
import { flatMap } from '../../core/lists.js';
import { describeFault } from '../../core/words/fault.js';
import { getBundledBrowser, type BrowserProgram } from '../browser/bundled.js';
import { describePlaces, findBrowser, getSystemPlaces, isProgram } from '../browser/find.js';
import { DRIVERS } from '../drivers.js';
import { getCacheFolder } from './cache-folder.js';
import { exists } from './folder.js';
import { listOldCaches, removeOldCaches } from '../browser/old-caches.js';
import { hideCredentials, parseProxy, type Proxy } from '../gate/upstream.js';
import { listTrusted } from '../gate/trusted.js';
import { within } from '../bounds/limit.js';
import { askVersion } from '../browser/version.js';

/** Letters and signs of which a visitor's machine has fonts. */
const SAMPLES: Record<string, string> = {
  Arabic: '\u0639',
  Hebrew: '\u05d0',
  Greek: '\u03a9',
  Cyrillic: '\u0416',
  Chinese: '\u6c34',
  Japanese: '\u304b',
  Korean: '\uac00',
  Hindi: '\u0905',
  Thai: '\u0e01',
  emoji: '\u{1f331}',
};
const PROXY_LIMIT = 5000;
const PROXIES = ['HTTPS_PROXY', 'HTTP_PROXY', 'ALL_PROXY', 'NO_PROXY'];

/**
 * Looks at this machine as an audit would meet it: the browser is started once.
 * @param clean whether what versions before left is removed
 */
export async function examineMachine(
  wanted: string | undefined,
  env: Record<string, string | undefined>,
  clean: boolean,
): Promise<Omit<MachineFacts, 'moreFonts'>> {
  if (clean) await removeOldCaches(await listOldCaches());
  const places = getSystemPlaces();
  const [browsers, { start, boxes }, loopback, proxy, folders, old] = await Promise.all([
    listBrowsers(places),
    tryBrowser(wanted),
    tryLoopback(),
    tryProxies(env),
    Promise.all([examineFolder('temporary', tmpdir()), examineFolder('cache', getCacheFolder())]),
    listOldCaches(),
  ]);
  return {
    today: new Date(),
    node: process.version,
    platform: `${process.platform} ${process.arch}`,
    browsers,
    lookedFor: describePlaces(),
    start,
    boxes,
    proxy,
    folders,
    trusted: listTrusted(env).map(({ source, certificates, fault }) => ({
      ...{ source, fault, count: certificates.length },
    })),
    old,
    loopback,
  };
}

async function listBrowsers(places: readonly string[]): Promise<BrowserFact[]> {
  const [bundled, system] = await Promise.all([askBundled(), askSystem(places)]);
  return [...(bundled ? [bundled] : []), ...system];
}

async function askBundled(): Promise<BrowserFact | null> {
  try {
    const program = await getBundledBrowser();
    return program && (await ask(program));
  } catch (error) {
    const fault = (error as Error).message;
    return { origin: 'bundled', path: '', version: null, fault };
  }
}

/** One browser often has several names, links or a small program that starts it: it is told once. */
async function askSystem(places: readonly string[]): Promise<BrowserFact[]> {
  const programs = new Map<string, BrowserProgram>();
  for (const path of places) {
    const real = (await isProgram(path)) ? await realpath(path) : null;
    if (real && !programs.has(real)) programs.set(real, { path, origin: 'system', env: {} });
  }
  const asked = await Promise.all([...programs.values()].map(ask));
  const names = asked.map(({ version }) => getNameAndNumber(version));
  return asked.filter((_, i) => names[i] === null || names.indexOf(names[i]!) === i);
}

/** `Chromium 147.0.7727.0`: who started it, or built it, may say more. */
function getNameAndNumber(version: string | null): string | null {
  return version && (/^.*?\d+(\.\d+)+/.exec(version)?.[0] ?? version);
}

async function ask(program: BrowserProgram): Promise<BrowserFact> {
  const { path, origin } = program;
  try {
    return { origin, path, version: await askVersion(program), fault: null };
  } catch (error) {
    const said = (error as { stderr?: string }).stderr?.trim() || (error as Error).message;
    return { origin, path, version: null, fault: said.split('\n')[0]!.slice(0, 200) };
  }
}

async function tryBrowser(
  wanted: string | undefined,
): Promise<Pick<MachineFacts, 'start' | 'boxes'>> {
  try {
    const program = await findBrowser(wanted);
    const browser = await DRIVERS.chromium.start(program, { spki: '', language: 'en-US' });
    try {
      const { sandboxed } = browser;
      const start = { path: program.path, origin: program.origin, sandboxed, fault: null };
      return { start, boxes: await browser.listUndrawn(SAMPLES).catch(() => null) };
    } finally {
      await browser.close();
    }
  } catch (error) {
    const fault = (error as Error).message;
    return { start: { path: null, origin: null, sandboxed: false, fault }, boxes: null };
  }
}

async function tryProxies(env: Record<string, string | undefined>): Promise<MachineFacts['proxy']> {
  const given = flatMap(PROXIES, (name) => {
    const value = env[name] || env[name.toLowerCase()];
    return value ? [{ name, value }] : [];
  });
  return Promise.all(
    given.map(async ({ name, value }) => {
      const proxy = parseProxy(value);
      const shown = { name, value: hideCredentials(value), usable: proxy !== null };
      if (name === 'NO_PROXY') return { ...shown, usable: true, fault: null };
      return { ...shown, fault: proxy ? await tryProxy(proxy) : 'is no http or https address' };
    }),
  );
}

/** Why a proxy does not serve; null where it can be reached. */
async function tryProxy({ host, port }: Proxy): Promise<string | null> {
  const socket = connect({ host, port });
  const reached = new Promise<string>((resolve) => {
    socket.once('connect', () => resolve(''));
    socket.once('error', (error) => resolve(describeFault(error)));
  });
  const fault = await within(reached, PROXY_LIMIT);
  socket.destroy();
  return fault === '' ? null : `does not answer (${fault ?? 'no answer in time'})`;
}

function tryLoopback(): Promise<string | null> {
  return new Promise((resolve) => {
    const server = createServer();
    server.once('error', (error: NodeJS.ErrnoException) => resolve(error.code ?? error.message));
    server.listen(0, '127.0.0.1', () => server.close(() => resolve(null)));
  });
}

async function examineFolder(what: string, path: string): Promise<MachineFacts['folders'][number]> {
  const folder = await getNearest(path);
  const isFolder = (await stat(folder)).isDirectory();
  const fault = await access(folder, constants.W_OK).then(
    () => (isFolder ? null : `${folder} is no folder`),
    (error: NodeJS.ErrnoException) => error.code ?? error.message,
  );
  const room = await statfs(folder).catch(() => null);
  return { what, path, fault, freeBytes: room && room.bavail * room.bsize };
}

/** The folder, or the nearest one above that is there. */
async function getNearest(path: string): Promise<string> {
  for (let at = path; ; at = dirname(at)) {
    if ((await exists(at)) || dirname(at) === at) return at;
  }
}
