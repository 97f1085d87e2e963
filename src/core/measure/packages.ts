import { decodePart } from './site.js';

/** A package of code, as an address names it. */
export interface Package {
  name: string;
  /** What stands for its version. */
  version: string;
  /** The path that all packages of its host stand under. */
  shelf: string;
}

const VERSIONED = /\/((?:@[\w.-]+\/)?[\w.-]+)@([^/]+)(?=\/|$)/;
const FILE = /\.(m?js|cjs|css|json)$/i;

/** Whether a name is one of a file of code. */
export function isCodeFile(name: string): boolean {
  return FILE.test(name);
}

/** The package that an address names (`name@version`); null where it names none. */
export function findPackage(url: URL): Package | null {
  const match = VERSIONED.exec(decodePart(url.pathname));
  if (!match || isCodeFile(match[2]!)) return null;
  const shelf = match.input.slice(0, match.index + 1);
  return { name: match[1]!, version: match[2]!, shelf };
}

/** A version in the name of a file (`seedlist-3.6.0.min.js`), and one that is a part of the path (`/seedlist/3.6.0/`). */
const IN_NAME =
  /\/([a-z][\w.-]*?)[.-]v?(\d+\.\d+(?:\.\d+)?)(?:[.-](?:slim|min|prod|umd|esm|bundle))*\.m?js$/i;
/** Parts of a path that name no library. */
const GENERIC =
  /^(js|libs?|dist|static|assets|scripts?|builds?|releases?|v|cdn|sdk|api|npm|ajax|embed|widgets?|latest|src|public|common)$/i;
const IN_PATH = /\/([a-z][\w.-]*)\/v?(\d+\.\d+(?:\.\d+)?)\/(?:.*\/)?[^/]+\.m?js$/i;

/** The library that a script's address names, and its version, in whatever way; null where it names none. */
export function findLibrary(url: URL): Omit<Package, 'shelf'> | null {
  const found = findPackage(url);
  if (found) return { name: found.name, version: found.version };
  const path = decodePart(url.pathname);
  const match = IN_NAME.exec(path) ?? IN_PATH.exec(path);
  const name = match?.[1]!.toLowerCase();
  return match && name && !GENERIC.test(name) ? { name, version: match[2]! } : null;
}
