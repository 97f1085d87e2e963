import { appendFile, readFile } from 'node:fs/promises';
import { dirname } from 'node:path';
import { userInfo } from 'node:os';
import { badInput } from '../core/errors.js';
import type { House } from '../core/house/house.js';
import { toPlainHouse } from '../core/house/plain.js';
import { ledgerSchema, listCleared, type LedgerEntry } from '../core/ledger/entry.js';
import type { RunDocument } from '../core/run.js';
import { describeFault } from '../core/words/fault.js';
import { makeFolder } from '../render/machine/folder.js';
import { hashOf } from './hash.js';
import { parseJson } from './parse.js';
import { cannotWrite } from './write.js';

/**
 * Appends a line for each snippet of a run that is clear.
 * @param by who clears them; left out: whoever runs this
 * @returns how many there are
 * @throws ToolError `cannot-write`
 */
export async function clearTo(
  path: string,
  document: RunDocument,
  house: House,
  by = getUser(),
): Promise<number> {
  const houseHash = hashOf(JSON.stringify(toPlainHouse(house)));
  const entries = listCleared(document, { by, houseHash });
  const lines = entries.map((entry) => `${JSON.stringify(entry)}\n`).join('');
  try {
    await makeFolder(dirname(path));
    // In one piece: other runs may clear theirs to the same file.
    if (lines !== '') await appendFile(path, (await endsInside(path)) ? `\n${lines}` : lines);
  } catch (error) {
    throw cannotWrite(path, error);
  }
  return entries.length;
}

/** Whether the last line of a file was not ended. */
async function endsInside(path: string): Promise<boolean> {
  const text = await readFile(path, 'utf8').catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT') return '';
    throw error;
  });
  return text !== '' && !text.endsWith('\n');
}

function getUser(): string {
  try {
    return userInfo().username;
  } catch {
    return 'unknown';
  }
}

/**
 * What was cleared, as it stands in a ledger: of a snippet that was cleared several times, by its name, the last.
 * @param shown how the file is called in complaints
 * @throws ToolError `bad-input`: which line, and what is wrong with it
 */
export async function readLedger(path: string, shown: string): Promise<LedgerEntry[]> {
  const text = await readFile(path, 'utf8').catch((error: unknown) => {
    throw badInput(`${shown} could not be read: ${describeFault(error)}.`);
  });
  const entries = new Map<string, LedgerEntry>();
  for (const [i, line] of text.split('\n').entries()) {
    if (line.trim() === '') continue;
    const entry = readEntry(line, `${shown}:${i + 1}`);
    // Later ones come last too.
    entries.delete(entry.name);
    entries.set(entry.name, entry);
  }
  if (entries.size === 0) throw badInput(`${shown} has no snippet that was cleared.`);
  return [...entries.values()];
}

function readEntry(line: string, where: string): LedgerEntry {
  const parsed = ledgerSchema.safeParse(parseJson(line));
  if (!parsed.success) {
    const path = parsed.error.issues[0]!.path.join('.');
    const what = path === '' ? 'it is no entry of a ledger' : `\`${path}\` is missing or wrong`;
    throw badInput(`${where} is no line that \`--clear-to\` wrote: ${what}.`);
  }
  const { text, hash } = parsed.data;
  if (hashOf(text) !== hash)
    throw badInput(`${where} was changed: its text is not the one that was cleared.`);
  return parsed.data;
}
