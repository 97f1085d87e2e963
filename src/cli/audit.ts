import type { RunDocument } from '../core/run.js';
import { toPlainHouse } from '../core/house/plain.js';
import { judgeSnippet } from '../core/judge/judge.js';
import { readMarkup } from '../core/markup/markup.js';
import { loadHouse, type LoadedHouse } from './house-file.js';
import { readInputs } from './intake.js';
import { watchInterrupt } from './interrupt.js';
import { judge } from './judging.js';
import { LazyRenderer } from './lazy-renderer.js';
import {
  checkPlan,
  chooseChecks,
  chooseSlots,
  chooseViewports,
  needsNoRender,
  parseOptions,
} from './options.js';
import { checkTargets, saveAll, type Draw } from './outputs.js';
import { PictureStore } from './pictures.js';
import { Progress } from './progress.js';
import { openMeans, renderAll, type Means } from './rendering.js';
import { getExit, makeDocument, makeResults, tell, type Plan, type Results } from './report.js';
import { Faults } from './save.js';
import { complain, complainOf, type World } from './streams.js';

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
  const checks = chooseChecks(options);
  const plan: Plan = {
    ...home,
    options: { ...options, markupOnly: options.markupOnly || needsNoRender(options, checks) },
    snippets,
    checks,
    slots: chooseSlots(home.house, options.slot),
    viewports: chooseViewports(home.house, options),
    today: startedAt.toISOString().slice(0, 10),
  };
  checkPlan(plan);
  await checkTargets(options, world.cwd);
  const { document, results, faults } = plan.options.markupOnly
    ? await readAll(plan, world, startedAt)
    : await lookAtAll(plan, world, startedAt);
  for (const { message } of problems) await complain(world, message);
  for (const fault of faults.found) await complainOf(world, fault);
  if (results.interrupted) {
    await complain(
      world,
      `Interrupted: ${document.snippets.length} of ${snippets.length} snippets are finished and reported.`,
    );
    return INTERRUPTED;
  }
  return [...problems, ...faults.found][0]?.exitCode ?? getExit(document);
}

interface Done {
  document: RunDocument;
  results: Results;
  faults: Faults;
}

/** The markup alone. */
async function readAll(plan: Plan, world: World, startedAt: Date): Promise<Done> {
  const results = makeResults(plan.snippets.length);
  plan.snippets.forEach((_, i) => judge(plan, results, i, [], new Map(), MARKUP_ONLY));
  const document = makeDocument(plan, results, startedAt);
  const faults = new Faults();
  await faults.collect(tell(document, plan, world));
  await saveAll(document, plan, results, new PictureStore(null, faults), world, null, faults);
  return { document, results, faults };
}

async function lookAtAll(plan: Plan, world: World, startedAt: Date): Promise<Done> {
  // From here on Ctrl-C ends in good order, also while the browser is unpacked.
  const interrupt = watchInterrupt();
  const means = await openMeans(plan, world);
  const browser = new LazyRenderer(plan, means, world, interrupt.signal);
  try {
    const results = await lookAt(plan, means, browser, world, interrupt.signal);
    const document = makeDocument(plan, results, startedAt);
    const { keeper, pictures, faults } = means;
    // Told first: whatever happens to the files, it is there.
    await faults.collect(tell(document, plan, world));
    if (keeper)
      await faults.collect(keeper.finish(document, plan.snippets, describe(plan, results)));
    const draw: Draw = (html, width) => browser.draw(html, width);
    await saveAll(document, plan, results, pictures, world, draw, faults);
    return { document, results, faults };
  } finally {
    await browser.close();
    interrupt.stop();
  }
}

async function lookAt(
  plan: Plan,
  means: Means,
  browser: LazyRenderer,
  world: World,
  signal: AbortSignal,
): Promise<Results> {
  const results = makeResults(plan.snippets.length);
  const progress = new Progress(world.stderr, plan.options.quiet, plan.snippets.length);
  showMarkupFindings(plan, progress);
  try {
    await renderAll(plan, means, browser, results, progress, signal);
  } catch (error) {
    if (!signal.aborted) throw error;
  } finally {
    results.interrupted = signal.aborted;
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
