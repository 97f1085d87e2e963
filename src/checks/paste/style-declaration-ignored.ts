import { atSnippet, type Blame } from '../../core/measure/blame.js';
import { defineCheck, makeSeen, type Case, type Fact, type MarkupFact } from '../../core/check.js';
import type { RefusedStyle } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { listMistaken } from '../../core/markup/mistaken.js';
import type { Markup } from '../../core/markup/markup.js';
import { tell } from '../../core/tell.js';
import { shorten } from '../../core/words/list.js';

interface Data {
  written: string;
  instead: string | null;
}

/** So much of what is written is quoted. */
const MOST = 60;

export default defineCheck({
  id: 'style-declaration-ignored',
  subject: 'paste',
  level: 'concern',
  title: 'A style is passed over',
  decided:
    'The browser does not know the property, or does not take its value. Not what is meant for one engine, nor what another declaration beside it says in other words.',
  standard: 'CSS Syntax Module Level 3, 9 Error handling; CSS Conditional Rules 3 (supports)',
  needs: ['styles'],
  markup: 'part',
  judge: judgeRenders,
  unrendered: ({ markup }) => tellMistaken(markup),
  says: ({ written, instead }) => ({
    message: `Browsers pass over \`${shorten(written, MOST)}\`.`,
    notice: 'What it should do is not done: the snippet looks otherwise than was meant.',
    cure: instead
      ? `Write \`${instead}\`.`
      : 'See how the property is spelt, which values it takes, and whether a `;` is missing before it.',
  }),
  mend: ({ instead }, { where }) =>
    instead === null ? null : [{ do: 'replace-text', span: where, text: instead }],
  brief: ({ written }) => `browsers pass over ${shorten(written, MOST)}`,
  samples: [
    { written: 'widht: 300px', instead: 'width: 300px' },
    { written: 'color: 12', instead: null },
  ],
  examples: {
    faulty: [
      { name: 'a property misspelt', code: '<p style="colour: #274029">Sow in May.</p>' },
      {
        name: 'a length without its unit',
        code: '<style>.may { padding: 12 }</style><p class="may">Sow in May.</p>',
      },
    ],
    sound: [
      {
        name: 'for one engine, with the same for all others',
        code: '<style>.may { -moz-osx-font-smoothing: grayscale; -webkit-box-shadow: none; padding: 12px; line-height: 1.5; margin: 0 }</style><p class="may">Sow in May.</p>',
      },
      {
        name: 'an older way beside the newer one',
        code: '<style>.may { height: 100px; height: 10dvhx; --row: 12 }</style><p class="may">Sow in May.</p>',
      },
    ],
  },
});

/** Without a browser only what is plainly a slip is told. */
function tellMistaken(markup: Markup): MarkupFact<Data>[] {
  return listMistaken(markup).map((one) => tell.markup(atRefused(one), quote(markup, one)));
}

function judgeRenders({ markup, renders }: Case<'styles'>): Fact<Data>[] {
  return flatMap(renders, (render) => {
    const seen = makeSeen(render, {});
    return render.styles.map((one) => tell.seen(atRefused(one), quote(markup, one), seen));
  });
}

function atRefused(refused: RefusedStyle): Blame {
  return atSnippet(`style ${refused.offset}`, refused);
}

function quote({ text }: Markup, { offset, endOffset, instead }: RefusedStyle): Data {
  return { written: text.slice(offset, endOffset).trim(), instead };
}
