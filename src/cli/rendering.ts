import { cpus } from 'node:os';
import { join, resolve } from 'node:path';
import pLimit from 'p-limit';
import { ToolError } from '../core/errors.js';
import type { Evidence } from '../core/evidence.js';
import { readMarkup } from '../core/markup/markup.js';
import { planRenders } from '../core/plan.js';
import type { Snippet } from '../core/snippet.js';
import type { BrowserProgram } from '../render/browser/bundled.js';
import type { Renderer } from '../render/renderer.js';
import { judge } from './judging.js';
import { PICTURES } from './kept-run.js';
import { Keeper } from './keeper.js';
import type { LazyRenderer } from './lazy-renderer.js';
import { wantsPictures } from './options.js';
import { PictureStore } from './pictures.js';
import type { Progress } from './progress.js';
import { Faults } from './save.js';
import { loadRecording, RecordingFile, type LoadedRecording } from './recording.js';
import type { Plan, Results } from './report.js';
import { nameSource } from './source.js';
import type { World } from './streams.js';

/** What a run of renders works with. */
export interface Means {
  program: BrowserProgram;
  recording: LoadedRecording | null;
  recordTo: RecordingFile | null;
  keeper: Keeper | null;
  pictures: PictureStore;
  /** What could not be written on the way. */
  faults: Faults;
}

/** Opens all that a run reads from and writes to, before the first page is loaded. */
export async function openMeans(plan: Plan, world: World): Promise<Means> {
  const { keep, record, replay, browser } = plan.options;
  const at = (path: string) => resolve(world.cwd, path);
  const recording = replay === undefined ? null : await loadRecording(at(replay), replay);
  const { findBrowser } = await import('../render/browser/find.js');
  const program = await findBrowser(browser);
  const faults = new Faults();
  const source = recording && (await nameSource(plan, recording.hash, program));
  return {
    program,
    recording,
    recordTo: record === undefined ? null : await RecordingFile.open(at(record)),
    keeper: keep === undefined ? null : await Keeper.open(at(keep), source),
    pictures: new PictureStore(keep === undefined ? null : join(at(keep), PICTURES), faults),
    faults,
  };
}

/** Renders and judges all snippets, several at once. The browser is started when one needs it. */
export async function renderAll(
  plan: Plan,
  means: Means,
  browser: LazyRenderer,
  results: Results,
  progress: Progress,
  signal: AbortSignal,
): Promise<void> {
  const planned = planRenders('', plan.house, plan);
  progress.start(plan.snippets.length * planned.length);
  const limit = pLimit(plan.options.jobs ?? getDefaultJobs());
  const one = async (snippet: Snippet, i: number) => {
    if (signal.aborted) return;
    progress.begin(snippet.name);
    const kept = await findKept(plan, means, snippet);
    if (kept) {
      judge(plan, results, i, kept, means.keeper!.baselines, null);
      progress.step(planned.length);
    } else await renderOne(plan, await browser.get(), i, snippet, results, progress, means);
    progress.finish();
  };
  const work = plan.snippets.map((snippet, i) => limit(one, snippet, i));
  try {
    await Promise.race([Promise.all(work), whenAborted(signal)]);
  } finally {
    results.engines = browser.engines ?? means.keeper?.engines ?? [];
  }
}

/** The evidence of an unchanged snippet, where its pictures are there too if they are wanted. */
async function findKept(
  { options }: Plan,
  { keeper, pictures }: Means,
  snippet: Snippet,
): Promise<Evidence[] | null> {
  const evidence = (await keeper?.find(snippet)) ?? null;
  if (!evidence || !wantsPictures(options)) return evidence;
  const there = await Promise.all(
    evidence.map(({ picture }) => picture !== null && pictures.recall(picture.hash)),
  );
  return there.every(Boolean) ? evidence : null;
}

async function renderOne(
  plan: Plan,
  renderer: Renderer,
  index: number,
  snippet: Snippet,
  results: Results,
  progress: Progress,
  { keeper, faults }: Means,
): Promise<void> {
  const renders = planRenders(snippet.name, plan.house, plan);
  const markup = readMarkup(snippet.text);
  const evidence: Evidence[] = await renderer.renderSnippet(snippet, markup, renders, () =>
    progress.step(1),
  );
  const baselines = await renderer.getBaselines(evidence.map(({ render }) => render));
  judge(plan, results, index, evidence, baselines, null);
  if (keeper) await faults.collect(keeper.keep(snippet, evidence, baselines));
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
