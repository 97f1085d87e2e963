import { parse } from 'csv-parse/sync';
import * as z from 'zod';
import { badInput, ToolError } from '../errors.js';
import { flatMap } from '../lists.js';
import type { Taken } from './piece.js';

/** A record of a list: a name, a slot and the code itself. */
const record = z.object({
  code: z.string(),
  name: z.union([z.string(), z.number()]).nullish(),
  slot: z.string().nullish(),
});

/** The records of a JSON text: a list of objects, or an object that has one under `snippets`. @throws ToolError `bad-input` */
export function takeFromJson(text: string, shown: string): Taken[] {
  const read = readJson(text, shown);
  const list = Array.isArray(read) ? (read as unknown[]) : getList(read);
  if (!list)
    throw badInput(
      `${shown} must be a list of objects with \`code\`, or have one under \`snippets\`.`,
    );
  return list.map((one, i) => toPiece(one, 1, `${shown}, record ${i + 1}`));
}

/** The records of a JSON Lines text, one a line; one that is no JSON costs itself. */
export function takeFromJsonLines(text: string, shown: string): Taken[] {
  return flatMap(text.split(/\r?\n/), (line, i) => {
    if (line.trim() === '') return [];
    const where = `${shown}, line ${i + 1}`;
    try {
      return [toPiece(readJson(line, where), i + 1, where)];
    } catch (error) {
      return [error as ToolError];
    }
  });
}

/** The records of a CSV text whose first line names the columns. @throws ToolError `bad-input` */
export function takeFromCsv(text: string, shown: string): Taken[] {
  const [head = ''] = text.split(/\r?\n/);
  const delimiter = [',', ';', '\t'].sort(
    (a, b) => head.split(b).length - head.split(a).length,
  )[0]!;
  const rows = readCsv(text, shown, delimiter);
  const columns = rows[0]?.record ?? {};
  if (rows.length > 0 && !('code' in columns))
    throw badInput(
      `${shown} has no column \`code\`; its first line must name the columns name, slot and code.`,
    );
  return rows
    .filter(({ record: row }) => Object.values(row).some((cell) => cell?.trim()))
    .map(({ record: row, raw, info }) => {
      const { code = '', name, slot } = row;
      const lines = raw.replace(/\r?\n$/, '').split('\n').length;
      const line = info.lines - lines + 1 + countLinesBefore(raw, code);
      const given = { code, name: name || null, slot: slot || null };
      return toPiece(given, line, `${shown}, line ${line}`);
    });
}

interface Row {
  record: Record<string, string | undefined>;
  raw: string;
  info: { lines: number };
}

function readCsv(text: string, shown: string, delimiter: string): Row[] {
  try {
    return parse(text, {
      bom: true,
      delimiter,
      columns: (names: string[]) => names.map((name) => name.trim().toLowerCase()),
      info: true,
      raw: true,
      relax_column_count: true,
      relax_quotes: true,
      skip_empty_lines: true,
    }) as unknown as Row[];
  } catch (error) {
    const [said = ''] = (error as Error).message.split('\n');
    throw badInput(`${shown} is no CSV: ${said.replace(/\.$/, '')}.`);
  }
}

/** In which line of its record a cell begins. */
function countLinesBefore(raw: string, cell: string): number {
  const at = Math.max(raw.indexOf(cell.replaceAll('"', '""')), raw.indexOf(cell), 0);
  return raw.slice(0, at).split('\n').length - 1;
}

function readJson(text: string, shown: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    throw badInput(`${shown} is no JSON: ${(error as Error).message.replace(/\.$/, '')}.`);
  }
}

function getList(read: unknown): unknown[] | null {
  const list = (read as { snippets?: unknown } | null)?.snippets;
  return Array.isArray(list) ? (list as unknown[]) : null;
}

function toPiece(given: unknown, line: number, shown: string): Taken {
  const parsed = record.safeParse(given);
  if (!parsed.success) {
    const key = parsed.error.issues[0]!.path.join('.');
    return badInput(`${shown} must have a text under \`${key || 'code'}\`.`);
  }
  const { code, name = null, slot = null } = parsed.data;
  const called = name === null ? null : String(name);
  if (code.trim() === '')
    return badInput(`${shown}${called ? ` ("${called}")` : ''}, has no code.`);
  return { text: code, name: called, line, slot };
}
