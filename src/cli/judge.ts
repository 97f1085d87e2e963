import { resolve } from 'node:path';
import { getFormatOf } from '../formats/table.js';
import { loadHouse } from '../run/house-file.js';
import { getShotFolder } from '../run/kept-run.js';
import { rejudge, type RejudgeRequest } from '../run/rejudge.js';
import { called, clash, parseOptions, toRequest, type AuditFlags } from './options.js';
import { checkTargets, clearAll, getExit, holdToBudget, saveAll, tell } from './outputs.js';
import { complain, complainOf, type World } from './streams.js';

/** Judges a kept run again, without a browser. Resolves to the exit code, which is the verdict. */
export async function judge(
  run: string,
  given: Record<string, unknown>,
  world: World,
): Promise<number> {
  const options = parseOptions(given);
  const drawn = options.save.find((file) => getFormatOf(file)?.drawn);
  if (drawn !== undefined)
    throw clash(`--save ${drawn}`, 'judge', 'a contact sheet is drawn by the browser, in `audit`');
  if (options.record !== undefined)
    throw clash(
      `--save ${options.record}`,
      'judge',
      'traffic is recorded where there is some, in `audit`',
    );
  await checkTargets(options, world.cwd);
  const folder = resolve(world.cwd, run);
  const request = { ...(await readJudging(options, world.cwd)), folder, shown: run };
  const { document, differs, faults, house } = await rejudge(request, called);
  if (differs && !options.quiet)
    await complain(
      world,
      'This house has other slots, viewports or page settings than the run was rendered with; judged is what was rendered then.',
    );
  await faults.collect(tell(document, options, world), 'the report');
  await saveAll(document, options, world, getShotFolder(folder), faults);
  await clearAll(document, options, house, world, faults);
  const held = await holdToBudget(document, options, world);
  for (const fault of faults.found) await complainOf(world, fault);
  return faults.exitCode ?? getExit(held);
}

/** How kept runs are judged, as the options say. @throws ToolError `bad-house` */
export async function readJudging(
  options: AuditFlags,
  cwd: string,
): Promise<Omit<RejudgeRequest, 'folder' | 'shown'>> {
  const home = options.house === undefined ? null : await loadHouse(options.house, cwd);
  const { only, skip, holdOn, newSince } = toRequest(options);
  return {
    ...(home && { house: home.house }),
    ...(only && { only }),
    ...(skip && { skip }),
    ...(holdOn && { holdOn }),
    ...(newSince && { newSince }),
  };
}
