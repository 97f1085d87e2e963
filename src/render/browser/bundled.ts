import { createReadStream, createWriteStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { createBrotliDecompress } from 'node:zlib';
import { ToolError } from '../../core/errors.js';
import { describeFault } from '../../core/words/fault.js';
import { getKept } from './cache.js';
import { getFonts } from './fonts.js';

/** A browser that can be started: the program and the environment it needs. */
export interface BrowserProgram {
  path: string;
  origin: 'bundled' | 'system' | 'given';
  env: Record<string, string>;
  /** Its major version, where that is known without asking it. */
  major?: number;
}

const WRAPPER = '@mivket/browser-linux-x64/package.json';
const ARCHIVES = ['al2023', 'swiftshader'];

/**
 * The browser that came with the packages, unpacked once into the private cache.
 * Resolves to null where none came, or none that fits the platform.
 * @throws ToolError `browser-failed` where it cannot be unpacked
 */
export async function getBundledBrowser(): Promise<BrowserProgram | null> {
  const source = await findPackage();
  if (!source) return null;
  const name = `browser-${process.platform}-${process.arch}-${source.version}-2`;
  const [folder, fonts] = await Promise.all([
    getKept(name, (making) => [
      inflateProgram(source.bin, making),
      ...ARCHIVES.map((archive) => unpack(source.bin, archive, making)),
    ]),
    getFonts(source.resolve).catch(explain),
  ]);
  return {
    path: join(folder, 'chromium'),
    origin: 'bundled',
    major: Number.parseInt(source.version, 10),
    env: { LD_LIBRARY_PATH: join(folder, 'lib'), FONTCONFIG_FILE: join(fonts, 'fonts.conf') },
  };
}

function explain(error: unknown): never {
  if (error instanceof ToolError) throw error;
  throw new ToolError(
    'browser-failed',
    `The browser that came along is not whole: ${describeFault(error)}; install the packages again.`,
    { cause: error },
  );
}

interface Source {
  bin: string;
  version: string;
  resolve: (id: string) => string;
}

async function findPackage(): Promise<Source | null> {
  try {
    const wrapper = createRequire(import.meta.url).resolve(WRAPPER);
    if (!fits(await readJson(wrapper))) return null;
    const { resolve } = createRequire(wrapper);
    const entry = resolve('@sparticuz/chromium');
    const folder = entry.slice(0, entry.lastIndexOf(join('chromium', 'build'))) + 'chromium';
    const { version } = (await readJson(join(folder, 'package.json'))) as { version: string };
    return { bin: join(folder, 'bin'), version, resolve };
  } catch {
    return null;
  }
}

/** In a checkout the package is there whatever the system is. */
function fits(about: unknown): boolean {
  const { os, cpu } = about as { os: string[]; cpu: string[] };
  return os.includes(process.platform) && cpu.includes(process.arch);
}

async function readJson(path: string): Promise<unknown> {
  return JSON.parse(await readFile(path, 'utf8')) as unknown;
}

async function inflateProgram(bin: string, making: string): Promise<void> {
  const out = createWriteStream(join(making, 'chromium'), { mode: 0o755 });
  await pipeline(createReadStream(join(bin, 'chromium.br')), createBrotliDecompress(), out);
}

async function unpack(bin: string, name: string, making: string): Promise<void> {
  // A CommonJS module: bundled or not, what is imported of it is one object.
  const { default: tar } = await import('tar-fs');
  const archive = join(bin, `${name}.tar.br`);
  const own = process.getuid ? { uid: process.getuid(), gid: process.getgid!() } : {};
  const out = tar.extract(making, { map: (header) => Object.assign(header, own) });
  await pipeline(createReadStream(archive), createBrotliDecompress(), out);
}
