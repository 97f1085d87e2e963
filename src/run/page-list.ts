import { convert } from 'xmlbuilder2';
import { badInput } from '../core/errors.js';
import { flatMap } from '../core/lists.js';
import { describeFault } from '../core/words/fault.js';

const ADDRESS = /^https?:\/\//i;

/**
 * The addresses of pages: given as such, or in a file, a line each or as a sitemap (sitemaps.org, XML).
 * @param read the text of a file
 * @throws ToolError `bad-input`
 */
export async function listPages(
  inputs: readonly string[],
  read: (file: string) => Promise<string>,
): Promise<string[]> {
  const all: string[] = [];
  for (const input of inputs)
    if (ADDRESS.test(input)) all.push(input);
    else all.push(...(await readPageList(input, read)));
  return [...new Set(all)];
}

async function readPageList(
  file: string,
  read: (file: string) => Promise<string>,
): Promise<string[]> {
  const text = await read(file).catch((error: unknown) => {
    throw badInput(
      `${file} is neither the address of a page nor a file with such: ${describeFault(error)}.`,
    );
  });
  const found = /^\s*(?:\uFEFF)?</.test(text) ? readSitemap(text, file) : readLines(text);
  const wrong = found.find((one) => !ADDRESS.test(one));
  if (wrong !== undefined) throw badInput(`${file}: “${wrong}” is no address of a page.`);
  if (found.length === 0) throw badInput(`${file} has no address of a page.`);
  return found;
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
