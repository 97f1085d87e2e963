import type { RunDocument } from '../core/run.js';
import type { Snippet } from '../core/snippet.js';
import { audit as startAudit, type AuditRun } from '../run/audit.js';
import type { AuditEvent } from '../run/events.js';
import { makeTemporary } from '../render/machine/temporary.js';
import { loadHouse, type LoadedHouse } from '../run/house-file.js';
import { getShotFolder } from '../run/kept-run.js';
import { Faults } from '../run/faults.js';
import { tellEarly } from './early.js';
import { readInputs } from './intake.js';
import { watchInterrupt } from './interrupt.js';
import { called, parseOptions, toRequest, wantsShots, type AuditFlags } from './options.js';
import {
  checkTargets,
  clearAll,
  getExit,
  getFailureCode,
  holdToBudget,
  INTERRUPTED,
  loadLines,
  prepareToTell,
  saveAll,
  tell,
} from './outputs.js';
import { ProgressBar } from './progress.js';
import { complain, complainOf, write, type World } from './streams.js';

const NO_SANDBOX =
  'mivket: The browser runs without its sandbox, because you are root; better run as an ordinary user.\n';

/** The main job. Resolves to the exit code, which is the verdict. */
export async function runAudit(
  given: Record<string, unknown>,
  world: World,
  loaded?: LoadedHouse,
): Promise<number> {
  const options = parseOptions(given);
  const home = loaded ?? (await loadHouse(options.house, world.cwd));
  const { inputs, code, extract } = options;
  const { snippets, problems } = await readInputs(inputs, code, world.cwd, world.stdin, extract);
  await checkTargets(options, world.cwd);
  // From here on Ctrl-C ends in good order, also while the browser is unpacked.
  const interrupt = watchInterrupt();
  const shots = await openShotFolder(options);
  try {
    const wish = { ...toRequest(options), ...home, snippets, ...(shots && { shots: shots.path }) };
    const run = startAudit(wish, { signal: interrupt.signal, called });
    const faults = new Faults();
    const document = await follow(run, snippets, options, world, faults, home);
    await saveAll(document, options, world, shots?.path ?? null, faults);
    if (!interrupt.signal.aborted) await clearAll(document, options, home.house, world, faults);
    const held = await holdToBudget(document, options, world);
    for (const { message } of problems) await complain(world, message);
    for (const fault of faults.found) await complainOf(world, fault);
    if (interrupt.signal.aborted) {
      const done = document.snippets.length;
      const words = `Interrupted: ${done} of ${snippets.length} snippets are finished and reported.`;
      await complain(world, words);
      return INTERRUPTED;
    }
    return getFailureCode(problems, faults) ?? getExit(held);
  } finally {
    await shots?.remove();
    interrupt.stop();
  }
}

/** Shows how it goes on, and tells what was found as soon as it is known. */
async function follow(
  run: AuditRun,
  snippets: readonly Snippet[],
  options: AuditFlags,
  world: World,
  faults: Faults,
  { house }: LoadedHouse,
): Promise<RunDocument> {
  const progress = new ProgressBar(world.stderr, options.quiet, snippets.length);
  const pasted = snippets.filter(({ published }) => !published);
  const lines = await loadLines(options);
  const told = run.document.then((document) => {
    progress.stop();
    if (!lines) return faults.collect(tell(document, options, world), 'the report');
  });
  told.catch(() => undefined);
  try {
    let early = false;
    for await (const event of run) {
      // What is to be rendered shows first what its markup shows.
      if (event.type === 'planned' && progress.shown && !early && !options.newSince)
        early = tellEarly(pasted, house, options, progress);
      show(event, progress);
      if (event.type === 'judged' && lines)
        await faults.collect(
          write(world.stdout, lines.tellSnippet(event.report, event.notJudged)),
          'the report',
        );
      if (event.type === 'fault') faults.add(event.error, '');
      if (event.type === 'browser') prepareToTell(options);
      if (event.type === 'browser' && !event.sandboxed && !options.quiet)
        await write(world.stderr, NO_SANDBOX);
    }
  } catch (error) {
    // Where there is a document it is told and saved, whatever broke down behind it.
    const document = await run.document.catch(() => null);
    if (document === null) throw error;
    faults.add(error, 'the end of the run');
  } finally {
    progress.stop();
  }
  await told;
  const document = await run.document;
  if (lines) await faults.collect(write(world.stdout, lines.tellEnd(document)), 'the report');
  return document;
}

function show(event: AuditEvent, progress: ProgressBar): void {
  if (event.type === 'planned') progress.expect(event.renders);
  if (event.type === 'begun') progress.begin(event.snippet);
  if (event.type === 'rendered') progress.step(event.renders);
  if (event.type === 'judged') progress.finish();
}

/** Where the shots of this run go: into the kept run, else to a place of their own that is gone afterwards. */
async function openShotFolder(options: AuditFlags) {
  if (!wantsShots(options)) return null;
  if (options.keep !== undefined)
    return { path: getShotFolder(options.keep), remove: () => Promise.resolve() };
  return makeTemporary('shots');
}
