import type { Check } from '../core/check.js';
import type { Baseline, Evidence } from '../core/evidence.js';
import { readMarkup, type Markup } from '../core/markup/markup.js';
import { planVariants } from '../core/plan.js';
import type { Render } from '../core/render.js';
import type { Snippet } from '../core/snippet.js';
import type { Renderer } from '../render/renderer.js';

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
  checks: readonly Check[],
  { onMore, onRender }: MeasureListener,
): Promise<Measured> {
  const markup = readMarkup(snippet.text, snippet);
  const asIs = await renderer.renderSnippet(snippet, markup, renders, onRender);
  const baselines = await renderer.getBaselines(renders);
  const variants = planVariants(asIs, checks, baselines);
  if (variants.length === 0) return { markup, evidence: asIs, baselines };
  onMore(variants.length);
  const more = await renderer.renderSnippet(snippet, markup, variants, onRender);
  return { markup, evidence: [...asIs, ...more], baselines };
}
