import { existsSync } from 'node:fs';
import { join, resolve } from 'node:path';
import type { Comparison } from '../core/compare/candidates.js';
import { badInput } from '../core/errors.js';
import { formatJson } from '../formats/json.js';
import { formatComparison } from '../formats/compared.js';
import { formatRunComparison } from '../formats/compared-runs.js';
import { compare, compareKept } from '../run/compare.js';
import { Faults } from '../run/faults.js';
import { readShot } from '../run/shots.js';
import { makeTemporary } from '../render/machine/temporary.js';
import { loadHouse } from '../run/house-file.js';
import { getShotFolder, KEPT_LIST } from '../run/kept-run.js';
import { readInputs } from './intake.js';
import { watchInterrupt } from './interrupt.js';
import { readJudging } from './judge.js';
import { called, parseOptions, TEXT_OR_JSON, toRequest, type AuditFlags } from './options.js';
import { getFailureCode, INTERRUPTED, tellDocument } from './outputs.js';
import { checkFiles, listSaved, PAGE_OR_JSON, saveFiles, type SavedForms } from './saved-files.js';
import { complain, complainOf, type World } from './streams.js';

/** Holds candidates, or two kept runs, against each other. Resolves to the exit code: 0 where they were. */
export async function runCompare(given: Record<string, unknown>, world: World): Promise<number> {
  const options = parseOptions(given, TEXT_OR_JSON);
  const kept = options.inputs.filter((input) => isKept(resolve(world.cwd, input)));
  return kept.length > 0 ? compareTwoKept(kept, options, world) : compareSnippets(options, world);
}

function isKept(folder: string): boolean {
  return existsSync(join(folder, KEPT_LIST));
}

async function compareTwoKept(
  kept: readonly string[],
  options: AuditFlags,
  world: World,
): Promise<number> {
  const { inputs, code } = options;
  const other = inputs.find((input) => !kept.includes(input)) ?? (code.length > 0 && '--code');
  if (other)
    throw badInput(
      `${kept[0]} is a kept run, and ${other} is not: compare takes two kept runs, or snippets.`,
    );
  if (kept.length !== 2)
    throw badInput(`compare takes two kept runs, the one before first: found ${kept.length}.`);
  const files = listSaved(options, PAGE_OR_JSON);
  await checkFiles(files, world);
  const [before, after] = kept.map((shown) => ({ shown, folder: resolve(world.cwd, shown) }));
  const judging = await readJudging(options, world.cwd);
  const { comparison, faults } = await compareKept(
    { ...judging, before: before!, after: after! },
    called,
  );
  await tellDocument(comparison, options, world, formatRunComparison);
  const writing = new Faults();
  const folders = [before!, after!].map(({ folder }) => getShotFolder(folder));
  const html = async () => {
    const { formatRunsPage } = await import('../formats/html/compared-runs.js');
    return formatRunsPage(comparison, (hash) => readShot(folders, hash));
  };
  await saveFiles(files, { json: () => formatJson(comparison), html }, world, writing);
  const all = [...faults, writing];
  for (const one of all) for (const fault of one.found) await complainOf(world, fault);
  return Math.max(0, ...all.map(({ exitCode }) => exitCode ?? 0));
}

async function compareSnippets(options: AuditFlags, world: World): Promise<number> {
  const { inputs, code, extract } = options;
  const files = listSaved(options, PAGE_OR_JSON);
  const home = await loadHouse(options.house, world.cwd);
  const { snippets, problems } = await readInputs(inputs, code, world.cwd, world.stdin, extract);
  if (snippets.length < 2)
    throw badInput(
      `There is nothing to compare ${snippets[0]?.name ?? 'with'} with: compare takes two snippets or more, or two kept runs.`,
    );
  await checkFiles(files, world);
  const interrupt = watchInterrupt();
  const { signal } = interrupt;
  const { path: shots, remove } = await makeTemporary('shots');
  try {
    const request = { ...toRequest(options), ...home, snippets, shots };
    const comparison = await compare(request, { signal, called });
    if (signal.aborted) {
      await complain(world, 'Interrupted: nothing was compared.');
      return INTERRUPTED;
    }
    await tellDocument(comparison, options, world, formatComparison);
    const faults = new Faults();
    await saveFiles(files, toFiles(comparison, shots), world, faults);
    for (const { message } of problems) await complain(world, message);
    for (const fault of faults.found) await complainOf(world, fault);
    return getFailureCode(problems, faults) ?? 0;
  } finally {
    await remove();
    interrupt.stop();
  }
}

function toFiles(comparison: Comparison, shots: string): SavedForms {
  return {
    json: () => formatJson(comparison),
    html: async () => {
      const { formatComparisonPage } = await import('../formats/html/compared.js');
      return formatComparisonPage(comparison, (hash) => readShot(shots, hash));
    },
  };
}
