import { toPlainHouse } from '../core/house/plain.js';
import { judgeSnippet } from '../core/judge/judge.js';
import { readMarkup } from '../core/markup/markup.js';
import { loadHouse, type LoadedHouse } from './house-file.js';
import { readInputs } from './intake.js';
import { watchInterrupt } from './interrupt.js';
import { judge } from './judging.js';
import { chooseChecks, chooseSlots, chooseViewports, parseOptions } from './options.js';
import { Progress } from './progress.js';
import { openMeans, renderAll, type Means } from './rendering.js';
import { getExit, makeDocument, makeResults, tell, type Plan, type Results } from './report.js';
import { write, type World } from './streams.js';

const BAD_INPUT = 2;
const INTERRUPTED = 130;
const MARKUP_ONLY = 'only the markup was read';

/** The main job. Resolves to the exit code, which is the verdict. */
export async function audit(
  given: Record<string, unknown>,
  world: World,
  loaded?: LoadedHouse,
): Promise<number> {
  const startedAt = new Date();
  const options = parseOptions(given);
  const home = loaded ?? (await loadHouse(options.house, world.cwd));
  if (options.holdOn) home.house.holdOn = options.holdOn;
  const { snippets, problems } = await readInputs(
    options.inputs,
    options.code,
    world.cwd,
    world.stdin,
  );
  const plan: Plan = {
    ...home,
    options,
    snippets,
    checks: chooseChecks(options),
    slots: chooseSlots(home.house, options.slot),
    viewports: chooseViewports(home.house, options),
    today: startedAt.toISOString().slice(0, 10),
  };
  const means = options.markupOnly ? null : await openMeans(plan, world);
  const results = means ? await lookAt(plan, means, world) : readAll(plan);
  const document = makeDocument(plan, results, startedAt);
  await means?.keeper?.finish(document, snippets, describe(plan, results));
  await tell(document, plan, world);
  for (const problem of problems) await write(world.stderr, `mivket: ${problem.message}\n`);
  if (results.interrupted) {
    await write(
      world.stderr,
      `mivket: Interrupted: ${document.snippets.length} of ${snippets.length} snippets are finished and reported.\n`,
    );
    return INTERRUPTED;
  }
  return problems.length > 0 ? BAD_INPUT : getExit(document);
}

/** The markup alone. */
function readAll(plan: Plan): Results {
  const results = makeResults(plan.snippets.length);
  plan.snippets.forEach((_, i) => judge(plan, results, i, [], new Map(), MARKUP_ONLY));
  return results;
}

async function lookAt(plan: Plan, means: Means, world: World): Promise<Results> {
  const results = makeResults(plan.snippets.length);
  const progress = new Progress(world.stderr, plan.options.quiet, plan.snippets.length);
  showMarkupFindings(plan, progress);
  const interrupt = watchInterrupt();
  try {
    await renderAll(plan, means, results, progress, world, interrupt.signal);
  } catch (error) {
    if (!interrupt.signal.aborted) throw error;
  } finally {
    results.interrupted = interrupt.signal.aborted;
    interrupt.stop();
    progress.stop();
  }
  return results;
}

/** What a kept run must say of how it was made. */
function describe({ house, ownPage, slots, viewports }: Plan, { engines }: Results) {
  return {
    engines,
    house: toPlainHouse(house) as Record<string, unknown>,
    ownPage: ownPage !== null,
    slots: slots.map(({ name }) => name),
    viewports: viewports.map(({ name }) => name),
  };
}

/** What the markup alone shows is on the screen before the browser has started. */
function showMarkupFindings(plan: Plan, progress: Progress): void {
  if (!progress.shown) return;
  for (const snippet of plan.snippets) {
    const { house, checks, today } = plan;
    const markup = readMarkup(snippet.text);
    const early = {
      snippet,
      markup,
      house,
      evidence: [],
      baselines: new Map(),
      checks,
      today,
      markupOnly: MARKUP_ONLY,
    };
    for (const finding of judgeSnippet(early).report.findings) {
      progress.note(`${snippet.name}:${finding.where.line}  ${finding.id}: ${finding.message}`);
    }
  }
}
