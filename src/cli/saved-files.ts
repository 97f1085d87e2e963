import { extname, resolve } from 'node:path';
import { ToolError } from '../core/errors.js';
import { joinWords } from '../core/words/list.js';
import type { Faults } from '../run/faults.js';
import { checkTarget, writeWhole } from '../run/write.js';
import type { AuditFlags } from './options.js';
import type { World } from './streams.js';

/** What a command that tells of something else than a run can write. */
export const PAGE_OR_JSON = ['.html', '.json'];

/** Which files are to be written. @throws ToolError `bad-option` where one has another ending */
export function listSaved(
  { save }: Pick<AuditFlags, 'save'>,
  endings: readonly string[],
): string[] {
  const files = [...new Set(save)];
  const other = files.find((file) => !endings.includes(extname(file).toLowerCase()));
  if (other !== undefined)
    throw new ToolError(
      'bad-option',
      `\`--save\` must end on ${joinWords(endings, 'or')} here, found ${JSON.stringify(other)}.`,
    );
  return files;
}

/** Looks whether all can be written, before the first page is loaded. @throws ToolError `cannot-write` */
export async function checkFiles(files: readonly string[], { cwd }: World): Promise<void> {
  for (const file of files) await checkTarget(resolve(cwd, file));
}

/** What is written, by its ending. */
export interface SavedForms {
  json(): string;
  html?(): Promise<string>;
}

/** Writes them: what one cannot be written costs no other. */
export async function saveFiles(
  files: readonly string[],
  made: SavedForms,
  { cwd }: World,
  faults: Faults,
): Promise<void> {
  for (const file of files) {
    const make = /\.html$/i.test(file) && made.html ? made.html : made.json;
    const writing = async () => writeWhole(resolve(cwd, file), await make());
    await faults.collect(writing(), `writing ${file}`);
  }
}
