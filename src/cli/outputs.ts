import { resolve } from 'node:path';
import type { ToolError } from '../core/errors.js';
import { spend } from '../core/budget.js';
import type { House } from '../core/house/house.js';
import type { RunDocument } from '../core/run.js';
import { countWords } from '../core/words/list.js';
import {
  getFormatOf,
  PRINTED,
  type Format,
  type FormatMeans,
  type Lines,
} from '../formats/table.js';
import { formatJson } from '../formats/json.js';
import { Drawer } from '../run/drawing.js';
import { readShot } from '../run/shots.js';
import type { Faults } from '../run/faults.js';
import { checkTarget, writeWhole } from '../run/write.js';
import { makePaint } from './colours.js';
import { openFile } from './open.js';
import type { AuditFlags } from './options.js';
import { complain, getTextWidth, write, type World } from './streams.js';

/** What is opened where no HTML report is named. */
const REPORT = 'mivket-report.html';
const EXIT = { clear: 0, hold: 1, unsure: 3 } as const;

/** What a command ends with that was interrupted. */
export const INTERRUPTED = 130;

/** The exit code that stands for the verdict. */
export function getExit({ verdict }: Pick<RunDocument, 'verdict'>): number {
  return EXIT[verdict];
}

/** Adds what is clear to a ledger, where that is asked for, and says so. */
export async function clearAll(
  document: RunDocument,
  { clearTo: file, by, quiet }: AuditFlags,
  house: House,
  world: World,
  faults: Faults,
): Promise<void> {
  if (file === undefined) return;
  const { clearTo } = await import('../run/ledger.js');
  const clearing = clearTo(resolve(world.cwd, file), document, house, by).then(async (count) => {
    const words = `${countWords(count, 'snippet')} of ${document.snippets.length} added to ${file}.`;
    if (!quiet) await complain(world, words);
  });
  await faults.collect(clearing, `adding to ${file}`);
}

/** The verdict, or what a budget makes of it; what is over is said. */
export async function holdToBudget(
  document: RunDocument,
  { budget }: AuditFlags,
  world: World,
): Promise<Pick<RunDocument, 'verdict'>> {
  if (!budget) return document;
  const spent = spend(document, budget);
  for (const { level, found, allowed } of spent.over)
    await complain(
      world,
      `Over the budget: ${countWords(found, 'finding')} of the level ${level}, and ${allowed} may be.`,
    );
  return spent;
}

/** What could not be looked at, or done, outdoes the verdict; what Mivket itself failed on outdoes all. Null: nothing of the kind. */
export function getFailureCode(problems: readonly ToolError[], faults: Faults): number | null {
  const codes = problems.map(({ exitCode }) => exitCode);
  const code = Math.max(faults.exitCode ?? 0, ...codes);
  return code === 0 ? null : code;
}

/**
 * Looks whether all that is to be saved can be, before the first page is loaded.
 * @throws ToolError `cannot-write`
 */
export async function checkTargets(options: AuditFlags, cwd: string): Promise<void> {
  for (const file of listFiles(options)) await checkTarget(resolve(cwd, file));
  if (options.pictures !== undefined) await checkTarget(resolve(cwd, options.pictures, 'x.png'));
  for (const file of [options.writeWaivers, options.clearTo])
    if (file !== undefined) await checkTarget(resolve(cwd, file));
}

function listFiles({ save, open }: AuditFlags): string[] {
  const files = [...new Set(save)].filter((file) => getFormatOf(file) !== null);
  return open && getHtml(save) === null ? [...files, REPORT] : files;
}

function getHtml(save: readonly string[]): string | null {
  return save.find((file) => getFormatOf(file)?.name === 'html') ?? null;
}

/** Loads what writes the report, while something else is waited for. */
export function prepareToTell(options: AuditFlags): void {
  getPrinted(options)
    .load()
    .catch(() => undefined);
}

function getPrinted({ format }: AuditFlags): Format {
  return PRINTED.find(({ name }) => name === format)!;
}

/** What tells a run while it goes on; null where the report is one piece. */
export async function loadLines(options: AuditFlags): Promise<Lines | null> {
  return (await getPrinted(options).loadLines?.()) ?? null;
}

/** Writes the report to standard output. */
export async function tell(
  document: RunDocument,
  options: AuditFlags,
  world: World,
): Promise<void> {
  const make = await getPrinted(options).load();
  const means: FormatMeans = {
    paint: makePaint(world, options.color),
    width: getTextWidth(world, 120),
    getShot: () => Promise.resolve(null),
    draw: () => Promise.resolve(null),
  };
  for await (const content of make(document, means)) await write(world.stdout, content as string);
}

/** Writes a document of another kind than a run's, as text or as JSON. */
export async function tellDocument<T extends object>(
  document: T,
  { format, color }: Pick<AuditFlags, 'format' | 'color'>,
  world: World,
  toText: (document: T, means: Pick<FormatMeans, 'paint' | 'width'>) => string,
): Promise<void> {
  const means = { paint: makePaint(world, color), width: getTextWidth(world, 120) };
  await write(world.stdout, format === 'json' ? formatJson(document) : toText(document, means));
}

/**
 * Writes all files that were asked for, each by itself, and opens the report.
 * @param shots the folder that the shots are in; null where none were taken
 */
export async function saveAll(
  document: RunDocument,
  options: AuditFlags,
  world: World,
  shots: string | null,
  faults: Faults,
): Promise<void> {
  const drawer = new Drawer(options.browser);
  const means: FormatMeans = {
    paint: makePaint(world, false),
    width: 100,
    getShot: (hash) => (shots === null ? Promise.resolve(null) : readShot(shots, hash)),
    draw: (html, width) => drawer.draw(html, width),
  };
  try {
    for (const file of listFiles(options))
      await faults.collect(
        saveOne(resolve(world.cwd, file), getFormatOf(file)!, document, means),
        `writing ${file}`,
      );
    if (options.pictures !== undefined)
      await faults.collect(
        saveEach(resolve(world.cwd, options.pictures), document, means),
        'the contact sheets',
      );
    if (options.writeWaivers !== undefined)
      await faults.collect(
        saveWaivers(resolve(world.cwd, options.writeWaivers), document),
        `writing ${options.writeWaivers}`,
      );
  } finally {
    await drawer.close();
  }
  if (options.open) await openReport(getHtml(options.save) ?? REPORT, world);
}

async function saveWaivers(path: string, document: RunDocument): Promise<void> {
  const { formatWaivers } = await import('../formats/waivers.js');
  await writeWhole(path, formatWaivers(document));
}

/** What takes several files is told apart by a number: `-2` and on. */
async function saveOne(
  path: string,
  format: Format,
  document: RunDocument,
  means: FormatMeans,
): Promise<void> {
  let number = 0;
  const make = await format.load();
  for await (const content of make(document, means)) {
    const ending = new RegExp(`\\${format.ending}$`, 'i');
    const name = ++number === 1 ? path : path.replace(ending, `-${number}${format.ending}`);
    await writeWhole(name, content);
  }
}

async function openReport(html: string, world: World): Promise<void> {
  const path = resolve(world.cwd, html);
  const opened = await openFile(path, world.env);
  await complain(
    world,
    opened ? `Opened ${html}.` : `There is nothing here to open ${html} with; it is at ${path}.`,
  );
}

/** A sheet a snippet, under its name. */
async function saveEach(folder: string, document: RunDocument, means: FormatMeans): Promise<void> {
  const { drawSheets } = await import('../formats/html/sheets.js');
  const taken = new Set<string>();
  for (const snippet of document.snippets) {
    for await (const sheet of drawSheets([snippet], means.getShot, means.draw))
      await writeWhole(resolve(folder, `${getFileName(snippet.name, taken)}.png`), sheet);
  }
}

/** A snippet's name as a file name that stays in its folder, on every system; told apart by a number. */
function getFileName(name: string, taken: Set<string>): string {
  const plain = name
    .replace(/[^\p{L}\p{N}._-]+/gu, '-')
    .replace(/^[.-]+/, '')
    .slice(0, 100);
  let file = plain || 'snippet';
  for (let n = 2; taken.has(file.toLowerCase()); n++) file = `${plain || 'snippet'}-${n}`;
  taken.add(file.toLowerCase());
  return file;
}
