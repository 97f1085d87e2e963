import type { Evidence } from '../core/evidence.js';
import type { Render } from '../core/render.js';
import type { Waiting } from './search-windows.js';

/**
 * Gives renders what came of the searches that waited for a later one. What nothing came of is searched in a
 * load of its own.
 * @param waiting the searches of each of the page's snippets
 * @param evidence of each render, of each of its snippets
 * @param load a render once more, only for what is too wide; null where it broke down
 */
export async function settleWaiting(
  waiting: readonly (readonly Waiting[])[],
  evidence: readonly (readonly Evidence[])[],
  load: (render: Render) => Promise<readonly Evidence[] | null>,
): Promise<void> {
  for (const [of, searches] of waiting.entries())
    for (const { render, facts, found } of searches) {
      const own = evidence.find((all) => all[of]?.render === render)?.[of];
      // A render that broke down later on has nothing to be searched for.
      if (own?.elements !== facts.elements) continue;
      own.widths = found ?? (await load(render))?.[of]?.widths ?? own.widths;
    }
}
