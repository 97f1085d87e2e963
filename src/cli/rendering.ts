import { cpus } from 'node:os';
import { resolve } from 'node:path';
import pLimit from 'p-limit';
import { ToolError } from '../core/errors.js';
import type { Evidence } from '../core/evidence.js';
import { readMarkup } from '../core/markup/markup.js';
import { planRenders } from '../core/plan.js';
import type { Snippet } from '../core/snippet.js';
import type { BrowserProgram } from '../render/browser/bundled.js';
import type { Renderer } from '../render/renderer.js';
import { judge } from './judging.js';
import { Keeper } from './keeper.js';
import type { Progress } from './progress.js';
import { loadRecording, RecordingFile, type LoadedRecording } from './recording.js';
import type { Plan, Results } from './report.js';
import { nameSource } from './source.js';
import { write, type World } from './streams.js';

const NO_SANDBOX =
  'mivket: The browser runs without its sandbox, because you are root; better run as an ordinary user.\n';

/** What a run of renders works with. */
export interface Means {
  program: BrowserProgram;
  recording: LoadedRecording | null;
  recordTo: RecordingFile | null;
  keeper: Keeper | null;
}

/** Opens all that a run reads from and writes to, before the first page is loaded. */
export async function openMeans(plan: Plan, world: World): Promise<Means> {
  const { keep, record, replay, browser } = plan.options;
  const at = (path: string) => resolve(world.cwd, path);
  const recording = replay === undefined ? null : await loadRecording(at(replay), replay);
  const { findBrowser } = await import('../render/browser/find.js');
  const program = await findBrowser(browser);
  const source = recording && (await nameSource(plan, recording.hash, program));
  return {
    program,
    recording,
    recordTo: record === undefined ? null : await RecordingFile.open(at(record)),
    keeper: keep === undefined ? null : await Keeper.open(at(keep), source),
  };
}

/** Renders and judges all snippets, several at once. The browser is started when one needs it. */
export async function renderAll(
  plan: Plan,
  means: Means,
  results: Results,
  progress: Progress,
  world: World,
  signal: AbortSignal,
): Promise<void> {
  const browser = new LazyRenderer(plan, means, world, signal);
  const planned = planRenders('', plan.house, plan);
  progress.start(plan.snippets.length * planned.length);
  const limit = pLimit(plan.options.jobs ?? getDefaultJobs());
  const one = async (snippet: Snippet, i: number) => {
    if (signal.aborted) return;
    progress.begin(snippet.name);
    const kept = await means.keeper?.find(snippet);
    if (kept) {
      judge(plan, results, i, kept, means.keeper!.baselines, null);
      progress.step(planned.length);
    } else await renderOne(plan, await browser.get(), i, snippet, results, progress, means.keeper);
    progress.finish();
  };
  try {
    const work = plan.snippets.map((snippet, i) => limit(one, snippet, i));
    await Promise.race([Promise.all(work), whenAborted(signal)]);
  } finally {
    await browser.close();
    results.engines = browser.engines ?? means.keeper?.engines ?? [];
    await means.recordTo?.finish();
  }
}

async function renderOne(
  plan: Plan,
  renderer: Renderer,
  index: number,
  snippet: Snippet,
  results: Results,
  progress: Progress,
  keeper: Keeper | null,
): Promise<void> {
  const renders = planRenders(snippet.name, plan.house, plan);
  const markup = readMarkup(snippet.text);
  const evidence: Evidence[] = await renderer.renderSnippet(snippet, markup, renders, () =>
    progress.step(1),
  );
  const baselines = await renderer.getBaselines(evidence.map(({ render }) => render));
  judge(plan, results, index, evidence, baselines, null);
  await keeper?.keep(snippet, evidence, baselines);
}

/** A renderer that is opened once, by whoever needs it first. */
class LazyRenderer {
  #plan: Plan;
  #means: Means;
  #world: World;
  #signal: AbortSignal;
  #opening: Promise<Renderer> | null = null;
  engines: Results['engines'] | null = null;

  constructor(plan: Plan, means: Means, world: World, signal: AbortSignal) {
    this.#plan = plan;
    this.#means = means;
    this.#world = world;
    this.#signal = signal;
  }

  get(): Promise<Renderer> {
    return (this.#opening ??= this.#open());
  }

  async close(): Promise<void> {
    const renderer = await this.#opening?.catch(() => null);
    await renderer?.close();
  }

  async #open(): Promise<Renderer> {
    const { house, ownPage, root, options } = this.#plan;
    const { program, recording, recordTo } = this.#means;
    const { Renderer } = await import('../render/renderer.js');
    const renderer = await Renderer.open({
      program,
      house,
      ownPage,
      root,
      offline: options.offline,
      signal: this.#signal,
      ...(recordTo && { recordTo: recordTo.spool }),
      ...(recording && { recording: recording.exchanges }),
    });
    this.engines = [{ name: 'chromium', version: renderer.version }];
    if (!renderer.sandboxed && !options.quiet) await write(this.#world.stderr, NO_SANDBOX);
    renderer.prepare(planRenders('', house, this.#plan));
    return renderer;
  }
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
