import type { Check } from '../core/check.js';
import type { Baseline, Evidence } from '../core/evidence.js';
import type { House } from '../core/house/house.js';
import { readMarkup, type Markup } from '../core/markup/markup.js';
import { planVariants } from '../core/plan.js';
import { getEmpty, getPlace, getRenderKey, nameRoom, type Render } from '../core/render.js';
import { planBetween } from '../core/search/between.js';
import { planEdges, settleEdges } from '../core/search/edges.js';
import type { Snippet } from '../core/snippet.js';
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
}

/**
 * Renders a snippet as planned, and then in the variants that this calls for.
 * @param renders of the page as it is
 */
export async function measure(
  renderer: Renderer,
  snippet: Snippet,
  renders: readonly Render[],
  { checks, house }: { checks: readonly Check[]; house: House },
  { onMore, onRender }: MeasureListener,
): Promise<Measured> {
  const markup = readMarkup(snippet.text, snippet);
  const planned = await renderer.renderSnippet(snippet, markup, renders, onRender);
  const found = await findEdges(renderer, snippet, markup, planned);
  const between = planBetween(found);
  if (between.length > 0) onMore(between.length);
  const more = await renderer.renderSnippet(snippet, markup, between, onRender);
  const asIs = mergeRenders(found, more);
  const baselines = await renderer.getBaselines(asIs.map(({ render }) => render));
  const variants = planVariants(asIs, checks, baselines, { markup, house });
  if (variants.length === 0) return { markup, evidence: asIs, baselines };
  onMore(variants.length);
  const filtered = variants.filter(({ variant }) => variant === 'filtered');
  const others = variants.filter((one) => !filtered.includes(one));
  const evidence = [
    ...asIs,
    ...(await renderer.renderSnippet(snippet, markup, others, onRender)),
    ...(await renderFiltered(renderer, { snippet, markup, house }, filtered, onRender)),
  ];
  return { markup, evidence, baselines };
}

/** Puts each of the others behind the last narrower one of its slot. */
function mergeRenders(planned: readonly Evidence[], more: readonly Evidence[]): Evidence[] {
  const all = [...planned];
  for (const one of more) {
    const [room, { width }] = [nameRoom(getPlace(one)), getPlace(one)];
    const isBefore = (other: Evidence) =>
      nameRoom(getPlace(other)) === room && getPlace(other).width < width;
    const at = all.findLastIndex(isBefore);
    all.splice(at < 0 ? all.length : at + 1, 0, one);
  }
  return all;
}

/** Loads the windows at the edges of what a copy of the page only lets guess. */
async function findEdges(
  renderer: Renderer,
  snippet: Snippet,
  markup: Markup,
  all: readonly Evidence[],
): Promise<Evidence[]> {
  if (!all.some(({ widths }) => widths.guessed)) return [...all];
  const baselines = await renderer.getBaselines(all.map(({ render }) => render));
  const found: Evidence[] = [];
  for (const one of all) {
    const wide = baselines.get(getRenderKey(getEmpty(one.render)))?.wide ?? [];
    const around = { all, wide };
    const loads = await renderer.loadWindows(snippet, markup, one.render, (so) =>
      planEdges(one, around, so),
    );
    found.push(settleEdges(one, around, loads));
  }
  return found;
}
