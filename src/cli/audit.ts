import { cpus } from 'node:os';
import { resolve } from 'node:path';
import pLimit from 'p-limit';
import { ToolError } from '../core/errors.js';
import type { Evidence } from '../core/evidence.js';
import { judgeSnippet } from '../core/judge/judge.js';
import { readMarkup } from '../core/markup/markup.js';
import { planRenders } from '../core/plan.js';
import type { Snippet } from '../core/snippet.js';
import type { Renderer } from '../render/renderer.js';
import { loadHouse, type LoadedHouse } from './house-file.js';
import { readInputs } from './intake.js';
import { watchInterrupt } from './interrupt.js';
import { Keeper } from './keep.js';
import { chooseChecks, chooseSlots, chooseViewports, parseOptions } from './options.js';
import { Progress } from './progress.js';
import { makeDocument, tell, type Plan, type Results } from './report.js';
import { write, type World } from './streams.js';

const EXIT = { clear: 0, hold: 1, unsure: 3 } as const;
const BAD_INPUT = 2;
const INTERRUPTED = 130;
const NO_SANDBOX =
  'mivket: The browser runs without its sandbox, because you are root; better run as an ordinary user.\n';
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
  const results = await lookAt(plan, world);
  const document = makeDocument(plan, results, startedAt);
  await tell(document, plan, world);
  for (const problem of problems) await write(world.stderr, `mivket: ${problem.message}\n`);
  if (results.interrupted) {
    await write(
      world.stderr,
      `mivket: Interrupted: ${document.snippets.length} of ${snippets.length} snippets are finished and reported.\n`,
    );
    return INTERRUPTED;
  }
  return problems.length > 0 ? BAD_INPUT : EXIT[document.verdict];
}

async function lookAt(plan: Plan, world: World): Promise<Results> {
  const { snippets, options } = plan;
  const results: Results = {
    reports: snippets.map(() => undefined),
    notJudged: [],
    engines: [],
    interrupted: false,
  };
  if (options.markupOnly) {
    snippets.forEach((_, i) => judge(plan, results, i, [], new Map(), MARKUP_ONLY));
    return results;
  }
  const progress = new Progress(world.stderr, options.quiet, snippets.length);
  showMarkupFindings(plan, progress);
  const interrupt = watchInterrupt();
  try {
    await renderAll(plan, results, progress, world, interrupt.signal);
  } catch (error) {
    if (!interrupt.signal.aborted) throw error;
  } finally {
    results.interrupted = interrupt.signal.aborted;
    interrupt.stop();
    progress.stop();
  }
  return results;
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

async function renderAll(
  plan: Plan,
  results: Results,
  progress: Progress,
  world: World,
  signal: AbortSignal,
): Promise<void> {
  const renderer = await openRenderer(plan, signal);
  const keeper =
    plan.options.keep === undefined
      ? null
      : await Keeper.open(resolve(world.cwd, plan.options.keep));
  try {
    results.engines.push({ name: 'chromium', version: renderer.version });
    if (!renderer.sandboxed && !plan.options.quiet) await write(world.stderr, NO_SANDBOX);
    const planned = planRenders('', plan.house, plan);
    renderer.prepare(planned);
    progress.start(plan.snippets.length * planned.length);
    const limit = pLimit(plan.options.jobs ?? getDefaultJobs());
    const work = plan.snippets.map((snippet, i) =>
      limit(async () => {
        if (signal.aborted) return;
        const evidence = await renderSnippet(plan, renderer, snippet, progress);
        const baselines = await renderer.getBaselines(evidence.map(({ render }) => render));
        judge(plan, results, i, evidence, baselines, null);
        await keeper?.keep(snippet, evidence);
      }),
    );
    await Promise.race([Promise.all(work), whenAborted(signal)]);
  } finally {
    await renderer.close();
  }
}

async function openRenderer(plan: Plan, signal: AbortSignal): Promise<Renderer> {
  const [{ findBrowser }, { Renderer }] = await Promise.all([
    import('../render/browser/find.js'),
    import('../render/renderer.js'),
  ]);
  const { house, ownPage, root, options } = plan;
  const program = await findBrowser(options.browser);
  return Renderer.open({ program, house, ownPage, root, offline: options.offline, signal });
}

async function renderSnippet(
  plan: Plan,
  renderer: Renderer,
  snippet: Snippet,
  progress: Progress,
): Promise<Evidence[]> {
  const renders = planRenders(snippet.name, plan.house, plan);
  progress.begin(snippet.name);
  const evidence = await renderer.renderSnippet(snippet, readMarkup(snippet.text), renders, () =>
    progress.step(),
  );
  progress.finish();
  return evidence;
}

function judge(
  plan: Plan,
  results: Results,
  index: number,
  evidence: readonly Evidence[],
  baselines: Parameters<typeof judgeSnippet>[0]['baselines'],
  markupOnly: string | null,
): void {
  const snippet = plan.snippets[index]!;
  const { house, checks, today } = plan;
  const markup = readMarkup(snippet.text);
  const judged = judgeSnippet({
    snippet,
    markup,
    house,
    evidence,
    baselines,
    checks,
    today,
    markupOnly,
  });
  results.reports[index] = judged.report;
  results.notJudged[index] = judged.notJudged;
}

function getDefaultJobs(): number {
  // Much of a render is waiting, so there may be more than there are cores.
  return Math.min(8, Math.max(4, cpus().length));
}

function whenAborted(signal: AbortSignal): Promise<never> {
  return new Promise((_, reject) => {
    const abort = () => reject(new ToolError('nothing-rendered-at-all', 'Interrupted.'));
    if (signal.aborted) abort();
    else signal.addEventListener('abort', abort, { once: true });
  });
}
