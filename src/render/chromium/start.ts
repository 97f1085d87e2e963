import { spawn, type ChildProcess } from 'node:child_process';
import type { Readable, Writable } from 'node:stream';
import { ToolError } from '../../core/errors.js';
import { getMajorVersion } from '../browser/version.js';
import { atExit } from '../machine/at-exit.js';
import { Breakdown } from '../bounds/breakdown.js';
import { inTime } from '../bounds/limit.js';
import { makeTemporary } from '../machine/temporary.js';
import type { Program, RunningBrowser, StartOptions } from '../page/engine.js';
import { Connection } from './connection.js';
import { getAcceptLanguage, getUserAgent } from './identity.js';
import { Tab } from './tab.js';
import { listUndrawn } from './undrawn.js';

/** What a browser does and no render needs. */
const OFF = [
  'Translate',
  'MediaRouter',
  'OptimizationHints',
  'AutofillServerCommunication',
  'DialMediaRouteProvider',
  'SpareRendererForSitePerProcess',
  // Nobody goes back, and to keep each page for it costs a tenth of a load.
  'BackForwardCache',
  // What addresses may be asked is the gate's to decide.
  'LocalNetworkAccessChecks',
  'BlockInsecurePrivateNetworkRequests',
];

const ARGUMENTS = [
  '--headless',
  '--remote-debugging-pipe',
  '--no-first-run',
  '--no-default-browser-check',
  '--no-startup-window',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-default-apps',
  '--disable-extensions',
  '--disable-sync',
  '--disable-breakpad',
  '--disable-client-side-phishing-detection',
  '--disable-domain-reliability',
  `--disable-features=${OFF.join(',')}`,
  '--disable-background-timer-throttling',
  '--disable-backgrounding-occluded-windows',
  '--disable-renderer-backgrounding',
  '--disable-hang-monitor',
  '--disable-gpu',
  // What fills more than 1 GB with objects ends on phones too, and need not take this machine with it.
  '--js-flags=--max-old-space-size=1024',
  '--password-store=basic',
  '--use-mock-keychain',
  '--metrics-recording-only',
  // A desktop has a mouse: without one in the machine it would seem to have none.
  '--blink-settings=primaryHoverType=2,availableHoverTypes=2,primaryPointerType=4,availablePointerTypes=4',
  // The same pixels everywhere, together with the fonts file.
  '--font-render-hinting=none',
  '--force-color-profile=srgb',
  // Frames of other sites in processes of their own, as visitors' browsers do it.
  '--site-per-process',
  // Ways past the gate.
  '--disable-quic',
  '--force-webrtc-ip-handling-policy=disable_non_proxied_udp',
  // Code is not to take it for another browser than its visitors' is.
  '--disable-blink-features=AutomationControlled',
  '--block-new-web-contents',
];

const SHARED_WORKERS = {
  autoAttach: true,
  waitForDebuggerOnStart: true,
  flatten: true,
  filter: [{ type: 'shared_worker' }, { exclude: true }],
};
/** How long a browser may take to say its first word, ms. */
const START_LIMIT = 30_000;

/**
 * Starts the browser with a profile of its own, over a pipe.
 * @throws ToolError `browser-failed` with what the browser said; Breakdown where it was ended from outside
 */
export async function startBrowser(
  program: Program,
  options: StartOptions,
): Promise<RunningBrowser> {
  const profile = await makeTemporary('profile');
  const sandboxed = process.getuid?.() !== 0;
  const major = await getMajorVersion(program);
  const child = launch(program, profile.path, sandboxed, options, major);
  // Before its profile is removed, which it would write to again.
  const stay = atExit(() => killGroup(child));
  const ended = new Promise<void>((resolve) => child.once('close', () => resolve()));
  const close = async () => {
    killGroup(child);
    await ended;
    stay();
    await profile.remove();
  };
  try {
    const connection = new Connection(child.stdio[3] as Writable, child.stdio[4] as Readable);
    const { product } = await connectOrExplain(
      connection,
      child,
      program,
      options.limit ?? START_LIMIT,
    );
    // A shared worker belongs to no page: its context's tab takes it up.
    await connection.root.send('Target.setAutoAttach', SHARED_WORKERS);
    // A product's name stands before its number.
    const version = product.slice(product.indexOf('/') + 1);
    return {
      ...{ version: product, sandboxed, pid: child.pid!, close },
      get gone() {
        return connection.closed;
      },
      openPage: (door, { language }) => Tab.open(connection, door, { version, language }),
      listUndrawn: (samples) => listUndrawn(connection, samples),
    };
  } catch (error) {
    await close();
    throw error;
  }
}

/** A locale of this machine would show in how pages write days and numbers. */
function getLocale(language: string): NodeJS.ProcessEnv {
  const locale = `${language.replaceAll('-', '_')}.UTF-8`;
  return { LC_ALL: undefined, LC_MESSAGES: locale, LANG: locale, LANGUAGE: language };
}

function launch(
  program: Program,
  profile: string,
  sandboxed: boolean,
  { spki, language }: StartOptions,
  major: number | null,
) {
  const args = [
    ...ARGUMENTS,
    `--user-data-dir=${profile}`,
    `--ignore-certificate-errors-spki-list=${spki}`,
    ...(sandboxed ? [] : ['--no-sandbox']),
    // Also said to what no page speaks for: service workers and shared ones.
    `--lang=${language}`,
    `--accept-lang=${getAcceptLanguage(language)}`,
    ...(major === null ? [] : [`--user-agent=${getUserAgent(major, false)}`]),
  ];
  return spawn(program.path, args, {
    env: { ...process.env, ...getLocale(language), ...program.env },
    stdio: ['ignore', 'ignore', 'pipe', 'pipe', 'pipe'],
    detached: process.platform !== 'win32',
  });
}

async function connectOrExplain(
  connection: Connection,
  child: ChildProcess,
  program: Program,
  limit: number,
) {
  let said = '';
  child.stderr?.on('data', (chunk: Buffer) => (said = (said + chunk.toString()).slice(-4000)));
  const failed = new Promise<never>((_, reject) => {
    child.once('error', (error) => reject(explain(program, error.message)));
    child.once('exit', (code, signal) =>
      // Who is ended from outside may well be started again.
      reject(
        signal
          ? new Breakdown(`the browser was ended by ${signal}`)
          : explain(program, said || `it ended with code ${code}`),
      ),
    );
  });
  const version = connection.root.send('Browser.getVersion').catch(() => failed);
  const late = () => explain(program, `it said nothing for ${limit / 1000} s. ${said}`);
  return inTime(Promise.race([version, failed]), limit, late);
}

function explain(program: Program, said: string): ToolError {
  const line =
    said.split('\n').find((text) => /sandbox|error|cannot|no such|GLIBC/i.test(text)) ?? said;
  return new ToolError(
    'browser-failed',
    `The browser ${program.path} did not start: ${line.trim().slice(0, 300)}`,
  );
}

function killGroup(child: ChildProcess): void {
  if (child.pid === undefined || child.exitCode !== null) return;
  try {
    // The whole group: renderers outlive a killed parent for a moment otherwise.
    if (process.platform === 'win32') child.kill('SIGKILL');
    else process.kill(-child.pid, 'SIGKILL');
  } catch {
    // Already gone.
  }
}
