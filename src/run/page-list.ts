import { convert } from 'xmlbuilder2';
import { badInput, type ToolError } from '../core/errors.js';
import { flatMap } from '../core/lists.js';
import { describeFault } from '../core/words/fault.js';

const ADDRESS = /^https?:\/\//i;
/** By its name it lists pages, and is none. */
const SITEMAP = /\.xml(\.gz)?$/i;
/** Sitemaps that name sitemaps do so once; what goes deeper names itself. */
const MOST_DEEP = 3;

/** Where lists of pages are read from: a file, or what an address answers with. */
export interface PageLists {
  read(file: string): Promise<string>;
  fetch(address: string): Promise<string>;
}

/**
 * The addresses of pages: given as such; in a file, a line each; or in a sitemap (sitemaps.org, XML), which is a file, has
 * an address that ends as one, or is named by another.
 * @throws ToolError `bad-input`
 */
export async function listPages(inputs: readonly string[], lists: PageLists): Promise<string[]> {
  const all = new Set<string>();
  for (const input of inputs) for (const page of await listOf(input, lists, 0)) all.add(page);
  return [...all];
}

async function listOf(input: string, lists: PageLists, depth: number): Promise<string[]> {
  const isAddress = ADDRESS.test(input);
  if (isAddress && !(URL.canParse(input) && SITEMAP.test(new URL(input).pathname))) return [input];
  if (depth > MOST_DEEP) throw badInput(`${input} stands in sitemaps that name each other.`);
  const text = await (isAddress ? lists.fetch(input) : lists.read(input)).catch(
    (error: unknown) => {
      throw isAddress ? error : refuse(input, error);
    },
  );
  const isSitemap = isAddress || /^\s*(?:\uFEFF)?</.test(text);
  const found = isSitemap ? readSitemap(text, input) : readLines(text);
  const wrong = found.find((one) => !ADDRESS.test(one));
  if (wrong !== undefined) throw badInput(`${input}: “${wrong}” is no address of a page.`);
  if (found.length === 0) throw badInput(`${input} has no address of a page.`);
  const pages: string[] = [];
  for (const one of found) pages.push(...(await listOf(one, lists, depth + 1)));
  return pages;
}

function refuse(file: string, error: unknown): ToolError {
  return badInput(
    `${file} is neither the address of a page nor a file with such: ${describeFault(error)}.`,
  );
}

/** Empty lines, and those that begin with a #, say nothing. */
function readLines(text: string): string[] {
  return text
    .split('\n')
    .map((line) => line.replace('\uFEFF', '').trim())
    .filter((line) => line !== '' && !line.startsWith('#'));
}

function readSitemap(text: string, file: string): string[] {
  try {
    return listLocations(convert(text, { format: 'object' }));
  } catch (error) {
    throw badInput(`${file} is no sitemap that can be read: ${describeFault(error)}.`);
  }
}

/** All that stands in a `loc`, however deep. */
function listLocations(node: unknown): string[] {
  if (Array.isArray(node)) return flatMap(node as unknown[], listLocations);
  if (typeof node !== 'object' || node === null) return [];
  return flatMap(Object.entries(node), ([name, value]: [string, unknown]) =>
    name === 'loc'
      ? flatMap([value].flat(), (one) => (typeof one === 'string' ? [one.trim()] : []))
      : listLocations(value),
  );
}
