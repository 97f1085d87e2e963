import { readFile } from 'node:fs/promises';
import { resolve } from 'node:path';
import { badInput } from '../core/errors.js';
import { listCleared, toCleared } from '../core/ledger/entry.js';
import { holdAgainst, type HeldDocument } from '../core/ledger/held.js';
import type { House } from '../core/house/house.js';
import type { Cleared, LiveDocument } from '../core/live/live.js';
import { getOverall } from '../core/verdict.js';
import { formatHeld, formatLive } from '../formats/live.js';
import { formatJson } from '../formats/json.js';
import { checkLive } from '../run/check-live.js';
import { Faults } from '../run/faults.js';
import { withFetchedTexts } from '../run/fetch-texts.js';
import { loadHouse } from '../run/house-file.js';
import { readLedger } from '../run/ledger.js';
import { listPages } from '../run/page-list.js';
import { rejudge } from '../run/rejudge.js';
import { inShotFolder, readShot } from '../run/shots.js';
import { getTool } from '../run/version.js';
import { readInputs, type Intake } from './intake.js';
import { watchInterrupt } from './interrupt.js';
import { called, parseOptions, TEXT_OR_JSON, toRequest, type AuditFlags } from './options.js';
import { getExit, getFailureCode, INTERRUPTED, tellDocument } from './outputs.js';
import { checkFiles, listSaved, PAGE_OR_JSON, saveFiles } from './saved-files.js';
import { complain, complainOf, type World } from './streams.js';

/** Where it is told what was cleared. */
interface Sources {
  snippet?: string[];
  run?: string;
  ledger?: string;
}

/** Is what was cleared what is published? Resolves to the exit code, which is the verdict. */
export async function runCheckLive(
  { snippet, run, ledger, ...given }: Record<string, unknown> & Sources,
  world: World,
): Promise<number> {
  const options = parseOptions(given, TEXT_OR_JSON);
  const sources: Sources = {
    ...(snippet && { snippet }),
    ...(run !== undefined && { run }),
    ...(ledger !== undefined && { ledger }),
  };
  if (Object.keys(sources).length === 0)
    throw badInput('Say what was cleared: give --ledger, --run, or --snippet.');
  if (options.inputs.length === 0) return holdFiles(sources, options, world);
  return lookLive(await readCleared(sources, world), options, world);
}

/** Without a page: which files are as the ledger has them. */
async function holdFiles(
  { snippet, ledger, run }: Sources,
  options: AuditFlags,
  world: World,
): Promise<number> {
  if (!snippet || ledger === undefined || run !== undefined)
    throw badInput(
      'Give the addresses of pages to look at; without, --ledger and --snippet tell which files are as they were cleared.',
    );
  const files = listSaved(options, ['.json']);
  const entries = await readLedger(resolve(world.cwd, ledger), ledger);
  const { snippets, problems } = await readInputs(snippet, [], world.cwd, world.stdin);
  await checkFiles(files, world);
  const held = holdAgainst(snippets, entries);
  const document: HeldDocument = {
    schema: 'mivket-cleared-1',
    tool: getTool(),
    verdict: getOverall(held.map(({ state }) => (state === 'cleared' ? 'clear' : 'hold'))),
    snippets: held,
  };
  await tellDocument(document, options, world, formatHeld);
  const faults = new Faults();
  await saveFiles(files, { json: () => formatJson(document) }, world, faults);
  for (const { message } of problems) await complain(world, message);
  for (const fault of faults.found) await complainOf(world, fault);
  return getFailureCode(problems, faults) ?? getExit(document);
}

/** What was cleared, from wherever it is told; of what is named twice the ledger's counts. */
async function readCleared({ snippet, run, ledger }: Sources, world: World): Promise<Cleared[]> {
  const all: Cleared[] = [];
  if (snippet) {
    const { snippets, problems } = await readInputs(snippet, [], world.cwd, world.stdin);
    if (problems[0]) throw problems[0];
    all.push(...snippets.map(({ name, text }) => ({ name, text, findings: null, hosts: null })));
  }
  if (run !== undefined) {
    const kept = await rejudge({ folder: resolve(world.cwd, run), shown: run }, called);
    all.push(...listCleared(kept.document, { by: '', houseHash: '' }).map(toCleared));
    if (all.length === 0) throw badInput(`No snippet of ${run} is clear.`);
  }
  if (ledger !== undefined)
    all.push(...(await readLedger(resolve(world.cwd, ledger), ledger)).map(toCleared));
  return [...new Map(all.map((one) => [one.name, one])).values()];
}

async function lookLive(
  cleared: readonly Cleared[],
  options: AuditFlags,
  world: World,
): Promise<number> {
  const files = listSaved(options, PAGE_OR_JSON);
  const home = await loadHouse(options.house, world.cwd);
  await checkFiles(files, world);
  const interrupt = watchInterrupt();
  const { signal } = interrupt;
  const work = async (shots?: string) => {
    const { snippets, problems } = await readPages(options, home.house, signal, world);
    const request = { ...toRequest(options), ...home, snippets, cleared, ...(shots && { shots }) };
    const { document, faults } = await checkLive(request, { signal, called });
    signal.throwIfAborted();
    await tellDocument(document, options, world, formatLive);
    const html = () => toPage(document, shots ?? '');
    await saveFiles(files, { json: () => formatJson(document), html }, world, faults);
    for (const { message } of problems) await complain(world, message);
    for (const fault of faults.found) await complainOf(world, fault);
    return getFailureCode(problems, faults) ?? getExit(document);
  };
  try {
    // To take pictures the snippets are rendered too: that is done where somebody is to see them.
    return await (files.length > 0 ? inShotFolder(undefined, work) : work());
  } catch (error) {
    if (!signal.aborted) throw error;
    await complain(world, 'Interrupted: nothing was checked.');
    return INTERRUPTED;
  } finally {
    interrupt.stop();
  }
}

async function toPage(document: LiveDocument, shots: string): Promise<string> {
  const { formatLiveHtml } = await import('../formats/html/live.js');
  return formatLiveHtml(document, (hash) => readShot(shots, hash));
}

async function readPages(
  { inputs }: AuditFlags,
  house: House,
  signal: AbortSignal,
  world: World,
): Promise<Intake> {
  const read = (file: string) => readFile(resolve(world.cwd, file), 'utf8');
  const addresses = await withFetchedTexts(house, signal, (fetch) =>
    listPages(inputs, { read, fetch }),
  );
  return readInputs(addresses, [], world.cwd, world.stdin);
}
