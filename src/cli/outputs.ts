import { resolve } from 'node:path';
import { ToolError } from '../core/errors.js';
import type { RunDocument } from '../core/run.js';
import { formatHtml, formatSheetPage, type HtmlReport } from '../formats/html/report.js';
import { formatJson } from '../formats/json.js';
import { openFile } from './open.js';
import type { PictureStore } from './pictures.js';
import { getHouseLook, type Plan, type Results } from './report.js';
import type { AuditOptions } from './options.js';
import { checkTarget, writeWhole, type Faults } from './save.js';
import { complain, type World } from './streams.js';

/** Draws a page as a PNG; null where it is higher than a picture can be. */
export type Draw = (html: string, width: number) => Promise<Buffer | null>;

/** What is opened where no HTML report is named. */
const REPORT = 'mivket-report.html';
const SHEET_WIDTH = 1600;
/** So many snippets on one sheet, so that a long run is not held in one page. */
const ON_A_SHEET = 12;

/**
 * Looks whether all that is to be saved can be, before the first page is loaded.
 * @throws ToolError `cannot-write`
 */
export async function checkTargets(options: AuditOptions, cwd: string): Promise<void> {
  for (const file of listFiles(options)) await checkTarget(resolve(cwd, file));
  if (options.pictures !== undefined) await checkTarget(resolve(cwd, options.pictures, 'x.png'));
}

function listFiles({ save, open }: AuditOptions): string[] {
  const files = [...new Set(save)];
  return open && getHtml(save) === null ? [...files, REPORT] : files;
}

function getHtml(save: readonly string[]): string | null {
  return save.find((file) => /\.html$/i.test(file)) ?? null;
}

/** Writes all files that were asked for, each by itself, and opens the report. */
export async function saveAll(
  document: RunDocument,
  plan: Plan,
  results: Results,
  pictures: PictureStore,
  world: World,
  draw: Draw | null,
  faults: Faults,
): Promise<void> {
  const { options } = plan;
  const report = makeReport(document, plan, results, pictures);
  for (const file of listFiles(options)) {
    const path = resolve(world.cwd, file);
    await faults.collect(saveOne(path, report, draw));
  }
  if (options.pictures !== undefined)
    await faults.collect(saveEach(resolve(world.cwd, options.pictures), report, draw));
  if (options.open) await openReport(getHtml(options.save) ?? REPORT, world);
}

function saveOne(path: string, report: HtmlReport, draw: Draw | null): Promise<void> {
  if (/\.json$/i.test(path)) return writeWhole(path, formatJson(report.document));
  if (/\.html$/i.test(path)) return writeWhole(path, formatHtml(report));
  return saveSheets(path, report, draw);
}

async function openReport(html: string, world: World): Promise<void> {
  const path = resolve(world.cwd, html);
  const opened = await openFile(path, world.env);
  await complain(
    world,
    opened ? `Opened ${html}.` : `There is nothing here to open ${html} with; it is at ${path}.`,
  );
}

function makeReport(
  document: RunDocument,
  plan: Plan,
  results: Results,
  pictures: PictureStore,
): HtmlReport {
  const { snippets } = plan;
  return {
    document,
    house: getHouseLook(plan),
    texts: new Map(snippets.map(({ name, text }) => [name, text])),
    sights: new Map(snippets.map(({ name }, i) => [name, results.sights[i] ?? []])),
    getPicture: (hash) => pictures.getBase64(hash),
  };
}

/** One sheet of all snippets; as many pictures as it takes, `-2` and on. */
async function saveSheets(path: string, report: HtmlReport, draw: Draw | null): Promise<void> {
  const names = report.document.snippets.map(({ name }) => name);
  const sheets: Buffer[] = [];
  for (let at = 0; at < names.length; at += ON_A_SHEET)
    sheets.push(...(await drawSheets(report, names.slice(at, at + ON_A_SHEET), draw)));
  for (const [i, sheet] of sheets.entries())
    await writeWhole(i === 0 ? path : path.replace(/\.png$/i, `-${i + 1}.png`), sheet);
}

/** A sheet a snippet, under its name. */
async function saveEach(folder: string, report: HtmlReport, draw: Draw | null): Promise<void> {
  const taken = new Set<string>();
  for (const { name } of report.document.snippets) {
    const [sheet] = await drawSheets(report, [name], draw);
    if (sheet) await writeWhole(resolve(folder, `${getFileName(name, taken)}.png`), sheet);
  }
}

async function drawSheets(
  report: HtmlReport,
  names: readonly string[],
  draw: Draw | null,
): Promise<Buffer[]> {
  if (!draw) throw new ToolError('browser-failed', 'The contact sheet could not be drawn.');
  const sheet = await draw(formatSheetPage(report, new Set(names)), SHEET_WIDTH);
  if (sheet) return [sheet];
  // One snippet's rows are never so high: each picture has a limit of its own.
  const half = Math.ceil(names.length / 2);
  if (names.length < 2) return [];
  return [
    ...(await drawSheets(report, names.slice(0, half), draw)),
    ...(await drawSheets(report, names.slice(half), draw)),
  ];
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
