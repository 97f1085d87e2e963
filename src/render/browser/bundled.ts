import { createReadStream, createWriteStream } from 'node:fs';
import {
  access,
  chmod,
  lstat,
  mkdir,
  mkdtemp,
  readFile,
  rename,
  rm,
  writeFile,
} from 'node:fs/promises';
import { createRequire } from 'node:module';
import { homedir } from 'node:os';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { createBrotliDecompress } from 'node:zlib';
import { ToolError } from '../../core/errors.js';
import { getFontsConf, installFonts } from './fonts.js';

/** A browser that can be started: the program and the environment it needs. */
export interface BrowserProgram {
  path: string;
  origin: 'bundled' | 'system' | 'given';
  env: Record<string, string>;
}

const WRAPPER = '@mivket/browser-linux-x64/package.json';
const ARCHIVES = ['al2023', 'swiftshader'];

/**
 * The browser that came with the packages, unpacked once into the private cache.
 * Resolves to null where the platform has none.
 */
export async function getBundledBrowser(): Promise<BrowserProgram | null> {
  const source = await findPackage();
  if (!source) return null;
  const cache = await openCache();
  const target = join(cache, `browser-${process.platform}-${process.arch}-${source.version}-1`);
  if (!(await exists(join(target, 'ready')))) await unpackInto(source, cache, target);
  return {
    path: join(target, 'chromium'),
    origin: 'bundled',
    env: {
      LD_LIBRARY_PATH: join(target, 'lib'),
      FONTCONFIG_FILE: join(target, 'fonts.conf'),
    },
  };
}

interface Source {
  bin: string;
  version: string;
  resolve: (id: string) => string;
}

async function findPackage(): Promise<Source | null> {
  try {
    const wrapper = createRequire(import.meta.url).resolve(WRAPPER);
    const { resolve } = createRequire(wrapper);
    const entry = resolve('@sparticuz/chromium');
    const folder = entry.slice(0, entry.lastIndexOf(join('chromium', 'build'))) + 'chromium';
    const about = JSON.parse(await readFile(join(folder, 'package.json'), 'utf8')) as {
      version: string;
    };
    return { bin: join(folder, 'bin'), version: about.version, resolve };
  } catch {
    return null;
  }
}

/** Where the browser that came along is unpacked. */
export function getCacheFolder(): string {
  return join(process.env.XDG_CACHE_HOME || join(homedir(), '.cache'), 'mivket');
}

/** The cache holds a program we run: it must be ours alone, or somebody else could swap it. */
async function openCache(): Promise<string> {
  const folder = getCacheFolder();
  await mkdir(folder, { recursive: true, mode: 0o700 }).catch((error: NodeJS.ErrnoException) => {
    throw new ToolError(
      'browser-failed',
      `The browser that came along has nowhere to be unpacked: ${folder} cannot be made (${error.code}); XDG_CACHE_HOME names another place.`,
    );
  });
  const found = await lstat(folder);
  const stranger = process.getuid && found.uid !== process.getuid();
  if (!found.isDirectory() || stranger) {
    throw new ToolError(
      'browser-failed',
      `The cache folder ${folder} is not a folder of your own.`,
    );
  }
  if (found.mode & 0o077) await chmod(folder, 0o700);
  return folder;
}

async function unpackInto(source: Source, cache: string, target: string): Promise<void> {
  const making = await mkdtemp(join(cache, 'making-'));
  try {
    await Promise.all([
      inflateProgram(source.bin, making),
      ...ARCHIVES.map((name) => unpack(source.bin, name, making)),
      installFonts(source.resolve, join(making, 'fonts')),
    ]);
    await writeFile(join(making, 'fonts.conf'), getFontsConf(target));
    await writeFile(join(making, 'ready'), '');
    await rename(making, target).catch(async (error: unknown) => {
      // Another process was faster: its copy is as good as ours.
      if (!(await exists(join(target, 'ready')))) throw error;
    });
  } finally {
    await rm(making, { recursive: true, force: true });
  }
}

async function inflateProgram(bin: string, making: string): Promise<void> {
  const out = createWriteStream(join(making, 'chromium'), { mode: 0o755 });
  await pipeline(createReadStream(join(bin, 'chromium.br')), createBrotliDecompress(), out);
}

async function unpack(bin: string, name: string, making: string): Promise<void> {
  const { extract } = await import('tar-fs');
  const archive = join(bin, `${name}.tar.br`);
  const own = process.getuid ? { uid: process.getuid(), gid: process.getgid!() } : {};
  const out = extract(making, { map: (header) => Object.assign(header, own) });
  await pipeline(createReadStream(archive), createBrotliDecompress(), out);
}

async function exists(path: string): Promise<boolean> {
  return access(path).then(
    () => true,
    () => false,
  );
}
