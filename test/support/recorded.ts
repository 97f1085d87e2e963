import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { CHECKS } from '../../src/checks/index.js';
import type { Check, Example } from '../../src/core/check.js';
import type { Baseline, Evidence } from '../../src/core/evidence.js';
import { completeHouse, type House } from '../../src/core/house/house.js';
import { houseSchema } from '../../src/core/house/schema.js';
import { judgeSnippet, type JudgedReport } from '../../src/core/judge/judge.js';
import { readMarkup } from '../../src/core/markup/markup.js';
import { applyEdits } from '../../src/core/mend/apply.js';
import type { Finding } from '../../src/core/run.js';

const FOLDER = fileURLToPath(new URL('../recorded', import.meta.url));

/** Evidence is to be recorded anew: `npm run record`. */
export const RECORDING = Boolean(process.env.MIVKET_RECORD);

/** What is said of it is to be written anew: `npm run retell`. */
export const RETELLING = Boolean(process.env.MIVKET_RETELL);

type Under = Example['under'];

/** What an example is rendered and judged under. */
export function getHouse(under: Under = {}): House {
  const viewports = [
    { name: 'phone', width: 320 },
    { name: 'desktop', width: 1280 },
  ];
  return completeHouse(houseSchema.parse({ viewports, ...under }), null);
}

/** What the examples are under that say nothing of it. */
export const EXAMPLE_HOUSE = getHouse();

/** What tells whether anything is too wide, and nothing else. */
export const FITTING = CHECKS.filter(({ tooWide }) => tooWide);

/** Evidence as it is kept for tests without a browser. */
export interface Recorded {
  code: string;
  under?: Under;
  evidence: Evidence[];
  baselines: [string, Baseline][];
}

/** A file a check, a line an entry; pages without snippets are many times the same, and stand in files of their own. */
type Line = Omit<Recorded, 'baselines'> & { baselines: string };

const baselines = new Map<string, Recorded['baselines']>();

function readBaselines(hash: string): Recorded['baselines'] {
  const known = baselines.get(hash);
  if (known) return known;
  const read = JSON.parse(readFileSync(`${FOLDER}/baselines/${hash}.json`, 'utf8'));
  baselines.set(hash, read);
  return read;
}

function nameBaselines(all: Recorded['baselines']): string {
  const text = JSON.stringify(all);
  const hash = createHash('sha256').update(text).digest('hex').slice(0, 12);
  mkdirSync(`${FOLDER}/baselines`, { recursive: true });
  writeFileSync(`${FOLDER}/baselines/${hash}.json`, `${text}\n`);
  return hash;
}

type Set = 'examples' | 'cases';

/** What was recorded of a check, by the rest of its key. */
export function readRecorded(set: Set, check: string): Record<string, Recorded> {
  const file = `${FOLDER}/${set}/${check}.json`;
  const known = files.get(file) ?? readFile(file);
  files.set(file, known);
  return known;
}

const files = new Map<string, Record<string, Recorded>>();

function readFile(file: string): Record<string, Recorded> {
  if (!existsSync(file)) return {};
  const lines = JSON.parse(readFileSync(file, 'utf8')) as Record<string, Line>;
  return Object.fromEntries(
    Object.entries(lines).map(([key, line]) => [
      key,
      { ...line, baselines: readBaselines(line.baselines) },
    ]),
  );
}

/** @param all by keys that begin with the check's name */
export function writeRecorded(set: Set, all: Record<string, Recorded>): void {
  rmSync(`${FOLDER}/${set}`, { recursive: true, force: true });
  mkdirSync(`${FOLDER}/${set}`, { recursive: true });
  const files = new Map<string, string[]>();
  for (const [key, { baselines: without, ...rest }] of Object.entries(all)) {
    const [check, name] = splitKey(key);
    const line = JSON.stringify({ ...rest, baselines: nameBaselines(without) });
    files.set(check, [...(files.get(check) ?? []), `${JSON.stringify(name)}:${line}`]);
  }
  for (const [check, lines] of files)
    writeFileSync(`${FOLDER}/${set}/${check}.json`, `{\n${lines.sort().join(',\n')}\n}\n`);
}

function splitKey(key: string): [check: string, name: string] {
  const at = key.indexOf(' ');
  return [key.slice(0, at), key.slice(at + 1)];
}

/** All that was recorded of examples, with their keys. */
export function listRecorded(): (Recorded & { key: string })[] {
  return CHECKS.flatMap(({ id }) =>
    Object.entries(readRecorded('examples', id)).map(([name, one]) => ({
      ...one,
      key: `${id} ${name}`,
    })),
  );
}

/** The findings of all checks on recorded evidence. */
export function judgeRecorded(recorded: Recorded, checks: readonly Check[] = CHECKS): Finding[] {
  return reportRecorded(recorded, checks).findings;
}

/** The whole report on recorded evidence. */
export function reportRecorded(
  { code, under, evidence, baselines }: Recorded,
  checks: readonly Check[] = CHECKS,
): JudgedReport {
  return judgeSnippet({
    snippet: { name: 'example', path: null, text: code },
    markup: readMarkup(code),
    house: getHouse(under),
    evidence,
    baselines: new Map(baselines),
    checks,
    today: '2026-01-01',
    markupOnly: null,
  }).report;
}

/** The same for evidence that nobody alters, judged but once. */
export function reportOnce(recorded: Recorded): JudgedReport {
  const known = reports.get(recorded.evidence) ?? reportRecorded(recorded);
  reports.set(recorded.evidence, known);
  return known;
}

const reports = new WeakMap<Evidence[], JudgedReport>();

/** What two renderings of one example must agree in: all but the measures, which may differ by a hair. */
export function getEssence(findings: readonly Finding[]): string[] {
  return findings.map(
    ({ id, level, where, confirmed, seen }) =>
      `${id} ${level} ${where.offset}-${where.endOffset} ${where.made ?? ''} ${confirmed} ${seen.map((one) => one.viewport).join(',')}`,
  );
}

export interface NamedExample extends Example {
  check: Check;
  kind: 'faulty' | 'sound';
  key: string;
}

/** All examples of all checks. */
export function listExamples(): NamedExample[] {
  return CHECKS.flatMap((check) =>
    (['faulty', 'sound'] as const).flatMap((kind) =>
      check.examples[kind].map((example) => ({
        ...example,
        check,
        kind,
        key: `${check.id} ${kind}: ${example.name}`,
      })),
    ),
  );
}

/** All that is said of a recorded example, a line a finding. */
export function tellRecorded(recorded: Recorded): string[] {
  return reportOnce(recorded).findings.map((finding) => {
    const { id, level, where, confirmed, ranges, ...said } = finding;
    const { made = '' } = where;
    const windows = ranges.map(({ from, to, near }) => `${from}-${to}${near ? '~' : ''}`).join(' ');
    const mended = said.mend && applyEdits(recorded.code, said.mend);
    const at = `${where.offset}-${where.endOffset}${made && ` ${made}`}`;
    const what = said.seen.map((one) => `${one.viewport}: ${one.what}`).join('; ');
    return [
      `${id} ${level}${confirmed ? '' : ' not confirmed'} at ${at}`,
      ...[said.brief, said.message, said.notice, said.cure, what, windows, mended ?? 'no mend'],
    ].join(' | ');
  });
}

type Told = Record<string, string[]>;

/** What was said of a check's examples and hard cases when they were recorded. */
export function readTold(check: string): Told {
  const file = `${FOLDER}/told/${check}.json`;
  return existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as Told) : {};
}

export function writeTold(check: string, told: Told): void {
  mkdirSync(`${FOLDER}/told`, { recursive: true });
  writeFileSync(`${FOLDER}/told/${check}.json`, `${JSON.stringify(told, null, 1)}\n`);
}

/** Baselines that no evidence has any more are removed. */
export function tidyBaselines(): void {
  const used = new Set(
    (['examples', 'cases'] as const).flatMap((set) =>
      readdirSync(`${FOLDER}/${set}`).flatMap((file) =>
        Object.values(
          JSON.parse(readFileSync(`${FOLDER}/${set}/${file}`, 'utf8')) as Record<string, Line>,
        ).map((line) => `${line.baselines}.json`),
      ),
    ),
  );
  for (const file of readdirSync(`${FOLDER}/baselines`))
    if (!used.has(file)) rmSync(`${FOLDER}/baselines/${file}`);
}
