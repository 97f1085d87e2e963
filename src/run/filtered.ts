import type { Evidence, Source } from '../core/evidence.js';
import { filterCode, type FilteredCode } from '../core/markup/filter-code.js';
import { readMarkup, type Markup } from '../core/markup/markup.js';
import type { House } from '../core/house/house.js';
import type { Render } from '../core/render.js';
import type { Snippet } from '../core/snippet.js';
import { mapSources } from '../core/sources.js';
import type { Budget } from '../render/bounds/budget.js';
import type { Renderer } from '../render/renderer.js';

/** Renders a snippet as the site keeps it; what the evidence says of places is of the snippet as it was given. */
export async function renderFiltered(
  renderer: Renderer,
  { snippet, markup, house }: { snippet: Snippet; markup: Markup; house: House },
  renders: readonly Render[],
  onRender: () => void,
  budget: Budget,
): Promise<Evidence[]> {
  if (renders.length === 0 || !house.filter) return [];
  const code = filterCode(markup, house.filter);
  const kept = { ...snippet, text: code.text };
  const evidence = await renderer.renderSnippet(
    kept,
    readMarkup(code.text, kept),
    renders,
    onRender,
    budget,
  );
  // Its styles are those of another text.
  return evidence.map((one) => ({ ...mapSources(one, (from) => move(from, code)), styles: [] }));
}

function move(source: Source, { getSource }: FilteredCode): Source {
  if ('script' in source)
    return { ...source, script: source.script === null ? null : getSource(source.script) };
  const offset = getSource(source.offset);
  return offset === null ? { script: null, line: null } : { offset };
}
