import type { RefusedStyle } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import type { Markup } from '../../core/markup/markup.js';
import { listJudgeable } from '../../core/markup/judgeable.js';
import type { BrowserPage } from '../page/browser-page.js';
import { defineStep } from './step.js';

/** The browser takes a declaration or does not, at whatever width: it is asked once. */
export const refusedStep = defineStep({
  name: 'refused',
  phase: 'asked of the browser',
  kind: 'styles',
  alsoHung: true,
  isDue: ({ markup }) => markup !== null,
  take: async ({ page, markup, known }) => known.refused ?? (await readRefused(page, markup!)),
  tells: (_facts, refused) => ({ styles: [...refused] }),
  learns: (known, refused) => ({ ...known, refused }),
  teaches: ({ known }) => known.refused === null,
});

/** The declarations of a snippet that the browser does not take. @throws Error where the page does not answer */
async function readRefused(
  page: Pick<BrowserPage, 'read'>,
  markup: Markup,
): Promise<RefusedStyle[]> {
  const declarations = listJudgeable(markup);
  if (declarations.length === 0) return [];
  const asked = declarations.map(({ property, value }) => ({ property, value }));
  const answers = await page.read('checkDeclarations', asked);
  return flatMap(declarations, ({ offset, endOffset, important }, i): RefusedStyle[] => {
    const refused = answers[i];
    if (!refused) return [];
    const mark = refused.instead !== null && important ? ' !important' : '';
    return [{ offset, endOffset, instead: refused.instead && refused.instead + mark }];
  });
}
