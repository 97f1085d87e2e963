import { atTag } from '../../core/measure/blame.js';
import { defineCheck, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { readSheets, type TopRule } from '../../core/markup/sheets.js';
import { readAllCss } from '../../core/markup/styles.js';
import type { Span } from '../../core/snippet.js';
import { tell } from '../../core/tell.js';

interface Data {
  /** The import as written. */
  written: string;
  /** Where it belongs: before the first rule that may not stand before it. */
  to: number;
  span: Span;
}

export default defineCheck({
  id: 'style-import-too-late',
  subject: 'paste',
  level: 'concern',
  title: 'A style sheet is imported too late',
  decided:
    'An `@import` stands behind another rule of its style element; before it only `@charset`, other imports and `@layer` without a block may stand.',
  standard: 'CSS Cascading and Inheritance 5, 2 Importing Style Sheets',
  needs: [],
  markup: true,
  judge: (c): Fact<Data>[] =>
    flatMap(/@|\\/.test(readAllCss(c.markup)) ? readSheets(c.markup) : [], ({ element, top }) => {
      const first = top.findIndex((rule) => !mayPrecede(rule));
      if (first < 0) return [];
      return top
        .slice(first)
        .filter(({ at }) => at === 'import')
        .map(({ offset, endOffset }) =>
          tell.markup(
            atTag(element, { offset, endOffset }),
            {
              written: c.snippet.text.slice(offset, endOffset),
              to: top[first]!.offset,
              span: { offset, endOffset },
            },
            { group: String(offset) },
          ),
        );
    }),
  says: () => ({
    message: 'This `@import` stands behind another rule: browsers leave it out.',
    notice: 'The styles and fonts of that sheet are not there.',
    cure: 'Move it to the beginning of the style element; better still, load the sheet by a link.',
  }),
  mend: ({ written, to, span }) => [
    { do: 'replace-text', span: { offset: to, endOffset: to }, text: `${written}\n` },
    { do: 'replace-text', span, text: '' },
  ],
  samples: [{ written: '', to: 0, span: { offset: 0, endOffset: 0 } }],
  examples: {
    faulty: [
      {
        name: 'behind a rule',
        code: '<style>.may { color: green } @import url("https://static.rootcellar.example/type.css");</style><p class="may">Sow in May.</p>',
      },
    ],
    sound: [
      {
        name: 'at the beginning',
        code: '<style>@layer base; @import url("https://static.rootcellar.example/type.css"); .may { color: green }</style><p class="may">Sow in May.</p>',
      },
    ],
  },
});

function mayPrecede({ at, block }: TopRule): boolean {
  return at === 'import' || at === 'charset' || (at === 'layer' && !block);
}
