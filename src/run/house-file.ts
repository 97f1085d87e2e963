import { readFile, stat } from 'node:fs/promises';
import { dirname, join, relative, resolve } from 'node:path';
import { ToolError } from '../core/errors.js';
import { findSlots } from '../core/host/host-page.js';
import type { House, Slot } from '../core/house/house.js';
import { getDefaultHouse, readHouse } from '../core/house/read.js';
import { suggest } from '../core/words/nearest.js';

const NAME = 'mivket.yaml';

/** A house with the files it names. */
export interface LoadedHouse {
  house: House;
  /** The text of the house's own page; null for the neutral one. */
  ownPage: string | null;
  /** The folder of the page's files, absolute; null where there is none. */
  root: string | null;
}

/**
 * The house file given, or the nearest `mivket.yaml` upward, or the defaults.
 * @throws ToolError `bad-house`
 */
export async function loadHouse(given?: string, cwd = process.cwd()): Promise<LoadedHouse> {
  const file = given === undefined ? await findUpward(cwd) : resolve(cwd, given);
  if (file === null) return { house: getDefaultHouse(), ownPage: null, root: null };
  const shown = relative(cwd, file) || file;
  const house = readHouse(await read(file, shown), shown);
  const folder = dirname(file);
  const ownPage =
    house.page === undefined
      ? null
      : await read(resolve(folder, house.page), `${shown}: page ${house.page}`);
  if (ownPage !== null) checkSlots(house, ownPage, shown);
  return { house, ownPage, root: await checkRoot(house, folder, shown) };
}

/** The files that a house is made of, absolute: its own, and its page. None where there is no house file. */
export async function listHouseFiles(given?: string, cwd = process.cwd()): Promise<string[]> {
  const file = given === undefined ? await findUpward(cwd) : resolve(cwd, given);
  if (file === null) return [];
  const { page } = readHouse(await read(file, relative(cwd, file) || file), file);
  return page === undefined ? [file] : [file, resolve(dirname(file), page)];
}

async function findUpward(from: string): Promise<string | null> {
  for (let folder = from; ; folder = dirname(folder)) {
    const file = join(folder, NAME);
    if (
      await stat(file).then(
        (found) => found.isFile(),
        () => false,
      )
    )
      return file;
    if (dirname(folder) === folder) return null;
  }
}

async function read(path: string, shown: string): Promise<string> {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(await readFile(path));
  } catch (error) {
    throw new ToolError('bad-house', `${shown} ${explain(error as NodeJS.ErrnoException)}.`);
  }
}

function explain({ code }: NodeJS.ErrnoException): string {
  if (code === 'ENOENT') return 'does not exist';
  if (code === 'ERR_ENCODING_INVALID_ENCODED_DATA') return 'is not UTF-8';
  return `could not be read (${code})`;
}

/** The page's own marks are its slots; what the house says of one is added to it. */
function checkSlots(house: House, page: string, shown: string): void {
  const marked = findSlots(page);
  if (marked.length === 0) {
    throw new ToolError(
      'bad-house',
      `${shown}: the page ${house.page} marks no slot. Put data-mivket-slot="NAME" on the element where snippets go.`,
    );
  }
  const isDefault =
    house.slots.length === 1 && house.slots[0]?.name === 'column' && !marked.includes('column');
  const stranger = isDefault ? undefined : house.slots.find(({ name }) => !marked.includes(name));
  if (stranger) {
    throw new ToolError(
      'bad-house',
      `${shown}: the slot "${stranger.name}" is not marked on the page ${house.page}. ${suggest(stranger.name, marked)}`,
    );
  }
  house.slots = marked.map(
    (name) => house.slots.find((slot) => slot.name === name) ?? makeSlot(name),
  );
}

function makeSlot(name: string): Slot {
  const range = { from: 0, to: Infinity, width: 'full' as const, inset: 0, height: null };
  return { name, align: 'start', headingLevel: 2, ranges: [range] };
}

async function checkRoot(house: House, folder: string, shown: string): Promise<string | null> {
  if (house.root === undefined) return null;
  const root = resolve(folder, house.root);
  const found = await stat(root).catch(() => null);
  if (!found?.isDirectory())
    throw new ToolError('bad-house', `${shown}: \`root\` names ${house.root}, which is no folder.`);
  return root;
}
