import { CHECKS } from '../checks/index.js';
import type { Check } from '../core/check.js';
import type { Baseline, Evidence } from '../core/evidence.js';
import type { House } from '../core/house/house.js';
import { readMarkup, type Markup } from '../core/markup/markup.js';
import { getSnippet, type MeasureAnswer, type MeasureJob } from '../core/measuring.js';
import { planConditions } from '../core/conditions.js';
import { planOutages, planVariants } from '../core/plan.js';
import {
  CONDITIONS,
  getEmpty,
  getPlace,
  getRenderKey,
  nameRoom,
  type Render,
} from '../core/render.js';
import { planBetween } from '../core/search/between.js';
import { planEdges, settleEdges } from '../core/search/edges.js';
import { markUntold } from '../core/search/untold.js';
import type { Snippet } from '../core/snippet.js';
import { Budget } from '../render/bounds/budget.js';
import { makeLost, markCut, OWN_FAULT } from '../render/bounds/lost.js';
import type { Doing } from '../render/life/series.js';
import type { Renderer } from '../render/renderer.js';
import { renderFiltered } from './filtered.js';

/** All that was measured of a snippet. */
export interface Measured {
  markup: Markup;
  evidence: Evidence[];
  baselines: ReadonlyMap<string, Baseline>;
}

/** Who is told how measuring goes on. */
export interface MeasureListener {
  /** So many renders more are to be made than was planned. */
  onMore(renders: number): void;
  onRender(): void;
  /** Something was thrown that no browser and no page is to blame for; what it left unseen is a gap. */
  onFault?(error: unknown): void;
}

/**
 * Renders a snippet as planned, and then in the variants that this calls for. What breaks down costs no more
 * than what it would have given: what was measured before stays, and what is missing is a gap.
 * @throws only where it was ended by `signal`
 */
export async function measure(
  renderer: Renderer,
  job: MeasureJob,
  listener: MeasureListener,
  signal?: AbortSignal,
): Promise<MeasureAnswer> {
  const { renders, timeLimit, seenOnly = false } = job;
  const snippet = getSnippet(job);
  const lost = renders.map((render) => makeLost(render, 0, OWN_FAULT));
  try {
    const about = { snippet, markup: readMarkup(snippet.text, snippet), house: renderer.house };
    const checks = CHECKS.filter(({ id }) => job.checks.includes(id));
    const budget = new Budget(timeLimit ?? undefined);
    const work: Work = {
      renderer,
      about,
      checks,
      seenOnly,
      budget,
      listener,
      ...(signal && { signal }),
    };
    const evidence = await takeSteps(work, renders, lost);
    return { evidence, baselines: [...(await findBaselines(work, evidence))] };
  } catch (error) {
    if (signal?.aborted) throw error;
    listener.onFault?.(error);
    return { evidence: lost, baselines: [] };
  }
}

/** A snippet that is being measured. */
interface Work {
  renderer: Renderer;
  about: { snippet: Snippet; markup: Markup; house: House };
  checks: readonly Check[];
  seenOnly: boolean;
  budget: Budget;
  listener: MeasureListener;
  signal?: AbortSignal;
}

async function takeSteps(
  work: Work,
  renders: readonly Render[],
  lost: Evidence[],
): Promise<Evidence[]> {
  const planned = await keep(work, lost, () => renderPlanned(work, renders));
  if (work.seenOnly) return planned;
  const found = await keep(work, planned, () => findEdges(work, planned));
  const asIs = await keep(work, found, () => renderBetween(work, found));
  const varied = await keep(work, asIs, () => renderVariants(work, asIs));
  const drilled = await keep(work, varied, () => renderOutages(work, varied));
  return keep(work, drilled, () => renderConditions(work, drilled));
}

/** What a step makes of what was known; where it breaks down, or there is no time for it, that is a gap in what was known. */
async function keep(
  { budget, signal, listener }: Work,
  known: Evidence[],
  step: () => Promise<Evidence[]>,
): Promise<Evidence[]> {
  if (budget.isOver) return markCut(known, budget.words);
  try {
    return await step();
  } catch (error) {
    if (signal?.aborted) throw error;
    listener.onFault?.(error);
    return markCut(known, OWN_FAULT);
  }
}

function renderPlanned(work: Work, renders: readonly Render[]): Promise<Evidence[]> {
  const { renderer, about, budget, listener, seenOnly } = work;
  const { snippet, markup } = about;
  const doing = { minute: !seenOnly, hands: !seenOnly, posesOnly: seenOnly };
  return renderer.renderSnippet(snippet, markup, renders, listener.onRender, budget, doing);
}

async function renderBetween(work: Work, found: Evidence[]): Promise<Evidence[]> {
  if (!found.some(({ widths }) => widths.spans.length > 0)) return found;
  const all = mergeRenders(found, await renderMore(work, planBetween(found)));
  return markUntold(all, await findBaselines(work, all));
}

async function renderVariants(work: Work, asIs: Evidence[]): Promise<Evidence[]> {
  const { renderer, about, checks, budget, listener } = work;
  const baselines = await findBaselines(work, asIs);
  const variants = planVariants(asIs, checks, baselines, about);
  const filtered = variants.filter(({ variant }) => CONDITIONS[variant].source === 'filtered');
  const others = variants.filter((one) => !filtered.includes(one));
  const { onRender } = listener;
  if (filtered.length > 0) listener.onMore(filtered.length);
  return [
    ...asIs,
    ...(await renderMore(work, others)),
    ...(await renderFiltered(renderer, about, filtered, onRender, budget)),
  ];
}

/** One host after the other does not answer, where somebody asks what happens then. */
async function renderOutages(work: Work, known: Evidence[]): Promise<Evidence[]> {
  const { about, checks } = work;
  const silent = planOutages(known, checks, about, about.snippet);
  return [...known, ...(await renderMore(work, silent, { hands: false }))];
}

/** What the snippet, its files or the page around ask for and was not looked at yet. */
async function renderConditions(work: Work, known: Evidence[]): Promise<Evidence[]> {
  const { about } = work;
  const asked = planConditions(known, about, about.snippet);
  return [...known, ...(await renderMore(work, asked, { hands: false }))];
}

/** Renders besides what was planned. */
async function renderMore(
  { renderer, about: { snippet, markup }, budget, listener }: Work,
  renders: readonly Render[],
  doing: Partial<Doing> = {},
): Promise<Evidence[]> {
  if (renders.length === 0) return [];
  listener.onMore(renders.length);
  return renderer.renderSnippet(snippet, markup, renders, listener.onRender, budget, doing);
}

function findBaselines(
  { renderer }: Work,
  all: readonly Evidence[],
): Promise<Map<string, Baseline>> {
  return renderer.getBaselines(all.map(({ render }) => render));
}

/** Puts each of the others behind the last narrower one of its slot, or before the first where there is none. */
function mergeRenders(planned: readonly Evidence[], more: readonly Evidence[]): Evidence[] {
  const all = [...planned];
  for (const one of more) {
    const [room, { width }] = [nameRoom(getPlace(one)), getPlace(one)];
    const isBefore = (other: Evidence) =>
      nameRoom(getPlace(other)) === room && getPlace(other).width < width;
    const at = all.findLastIndex(isBefore);
    const first = all.findIndex((other) => nameRoom(getPlace(other)) === room);
    all.splice(at < 0 ? Math.max(first, 0) : at + 1, 0, one);
  }
  return all;
}

/** Loads the windows at the edges of what a copy of the page only lets guess. */
async function findEdges(work: Work, all: Evidence[]): Promise<Evidence[]> {
  if (!all.some(({ widths }) => widths.guessed)) return all;
  const { renderer, about, budget } = work;
  const baselines = await findBaselines(work, all);
  const found: Evidence[] = [];
  for (const one of all) {
    const wide = baselines.get(getRenderKey(getEmpty(one.render)))?.wide ?? [];
    const around = { all, wide };
    const choose = (loads: readonly Evidence[]) => planEdges(one, around, loads);
    const loads = await renderer.loadWindows(
      about.snippet,
      about.markup,
      one.render,
      choose,
      budget,
    );
    found.push(settleEdges(one, around, loads));
  }
  return found;
}
