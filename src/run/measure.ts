import type { Check } from '../core/check.js';
import type { Baseline, Evidence } from '../core/evidence.js';
import type { House } from '../core/house/house.js';
import { readMarkup, type Markup } from '../core/markup/markup.js';
import { planConditions } from '../core/conditions.js';
import { planVariants } from '../core/plan.js';
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

/** What a snippet is measured for, and within what. */
export interface MeasureWish {
  checks: readonly Check[];
  house: House;
  /** The time for it as a whole, ms; left out: the usual. */
  timeLimit?: number;
  signal?: AbortSignal;
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
 * than what it would have given: what was measured before stays.
 * @param renders of the page as it is
 */
export async function measure(
  renderer: Renderer,
  snippet: Snippet,
  renders: readonly Render[],
  wish: MeasureWish,
  listener: MeasureListener,
): Promise<Measured> {
  const markup = readMarkup(snippet.text, snippet);
  const budget = new Budget(wish.timeLimit);
  const work: Work = { renderer, snippet, markup, budget, wish, listener };
  const { onRender } = listener;
  const lost = renders.map((render) => makeLost(render, 0, OWN_FAULT));
  const planned = await keep(work, lost, () =>
    renderer.renderSnippet(snippet, markup, renders, onRender, budget, { minute: true }),
  );
  const found = await keep(work, planned, () => findEdges(work, planned));
  const asIs = await keep(work, found, () => renderBetween(work, found));
  const varied = await keep(work, asIs, () => renderVariants(work, asIs));
  const evidence = await keep(work, varied, () => renderConditions(work, varied));
  return { markup, evidence, baselines: await findBaselines(work, evidence) };
}

/** A snippet that is being measured. */
interface Work {
  renderer: Renderer;
  snippet: Snippet;
  markup: Markup;
  budget: Budget;
  wish: MeasureWish;
  listener: MeasureListener;
}

/** What a step makes of what was known; where it breaks down, or there is no time for it, that is a gap in what was known. */
async function keep(
  { budget, wish, listener }: Work,
  known: Evidence[],
  step: () => Promise<Evidence[]>,
): Promise<Evidence[]> {
  if (budget.isOver) return markCut(known, budget.words);
  try {
    return await step();
  } catch (error) {
    if (wish.signal?.aborted) throw error;
    listener.onFault?.(error);
    return markCut(known, OWN_FAULT);
  }
}

async function renderBetween(work: Work, found: Evidence[]): Promise<Evidence[]> {
  if (!found.some(({ widths }) => widths.spans.length > 0)) return found;
  const all = mergeRenders(found, await renderMore(work, planBetween(found)));
  return markUntold(all, await findBaselines(work, all));
}

async function renderVariants(work: Work, asIs: Evidence[]): Promise<Evidence[]> {
  const { renderer, snippet, markup, budget, listener } = work;
  const { checks, house } = work.wish;
  const baselines = await findBaselines(work, asIs);
  const variants = planVariants(asIs, checks, baselines, { markup, house });
  const filtered = variants.filter(({ variant }) => CONDITIONS[variant].source === 'filtered');
  const others = variants.filter((one) => !filtered.includes(one));
  const about = { snippet, markup, house };
  const { onRender } = listener;
  if (filtered.length > 0) listener.onMore(filtered.length);
  return [
    ...asIs,
    ...(await renderMore(work, others)),
    ...(await renderFiltered(renderer, about, filtered, onRender, budget)),
  ];
}

/** What the snippet, its files or the page around ask for and was not looked at yet. */
async function renderConditions(work: Work, known: Evidence[]): Promise<Evidence[]> {
  const { snippet, markup, wish } = work;
  const asked = planConditions(known, { markup, house: wish.house }, snippet);
  return [...known, ...(await renderMore(work, asked, { hands: false }))];
}

/** Renders besides what was planned. */
async function renderMore(
  { renderer, snippet, markup, budget, listener }: Work,
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
  const { renderer, snippet, markup, budget } = work;
  const baselines = await findBaselines(work, all);
  const found: Evidence[] = [];
  for (const one of all) {
    const wide = baselines.get(getRenderKey(getEmpty(one.render)))?.wide ?? [];
    const around = { all, wide };
    const choose = (loads: readonly Evidence[]) => planEdges(one, around, loads);
    const loads = await renderer.loadWindows(snippet, markup, one.render, choose, budget);
    found.push(settleEdges(one, around, loads));
  }
  return found;
}
