import { open, realpath, stat } from 'node:fs/promises';
import { extname, join, relative, sep } from 'node:path';
import mime from 'mime';
import { getPath } from './address.js';
import { askForReports } from './reported.js';
import type { Answer, Ask } from './exchange.js';

/** What the host page's origin has: the planned page and the files beside it. */
export interface PageSource {
  html: string;
  headers: Record<string, string>;
  /** A folder of files that the page may ask for; null where the house has none. */
  root: string | null;
  /** The path of the page, with its query; left out: `/`. */
  path?: string;
  /** Its site is there too, and answers for all else. */
  published?: boolean;
  /** A host that takes in what it is asked, and does not answer. */
  silent?: string;
}

/** Whether it is the planned page itself that is asked for. */
export function isPage({ path = '/' }: PageSource, ask: Ask): boolean {
  const asked = getPath(ask);
  return (
    asked === path || (path === '/' && new URL(`http://page.example${asked}`).pathname === '/')
  );
}

/**
 * Answers for the host page's origin.
 * @returns false where the path is nobody's here, or may not be read.
 */
export async function servePage(source: PageSource, ask: Ask, answer: Answer): Promise<boolean> {
  const path = new URL(`http://page.example${getPath(ask)}`).pathname;
  if (isPage(source, ask)) {
    answer.writeHead(200, {
      'content-type': 'text/html; charset=utf-8',
      'cache-control': 'no-store',
      ...askForReports(source.headers),
    });
    answer.end(source.html);
    return true;
  }
  if (path === '/favicon.ico') {
    answer.writeHead(204);
    answer.end();
    return true;
  }
  return source.root !== null && serveFile(source.root, path, answer);
}

async function serveFile(root: string, path: string, answer: Answer): Promise<boolean> {
  const file = await findInside(root, path);
  if (!file) return false;
  const handle = await open(file, 'r').catch(() => null);
  if (!handle) return false;
  const { size } = await handle.stat();
  answer.writeHead(200, {
    'content-type': mime.getType(extname(file)) ?? 'application/octet-stream',
    'content-length': String(size),
  });
  const content = handle.createReadStream();
  content.on('error', () => answer.destroy());
  content.pipe(answer as NodeJS.WritableStream);
  return true;
}

/** Of those that begin with a dot no site gives any away but this (RFC 8615). */
const HIDDEN = /^\.(?!well-known$)/;

/**
 * The file a path names, or null: never one outside the folder, nor one whose name, or a folder's that it is in,
 * begins with a dot, links included.
 */
async function findInside(root: string, path: string): Promise<string | null> {
  try {
    const base = await realpath(root);
    const asked = join(base, decodeURIComponent(path));
    const file = await realpath(asked);
    const names = [...relative(base, asked).split(sep), ...relative(base, file).split(sep)];
    const inside = file.startsWith(base + sep) && (await stat(file)).isFile();
    return inside && !names.some((name) => HIDDEN.test(name)) ? file : null;
  } catch {
    return null;
  }
}
