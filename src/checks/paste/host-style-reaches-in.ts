import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import type { ReachFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { blameElement } from '../../core/measure/blame.js';
import {
  countWords,
  formatWidths,
  joinWords,
  nameElement,
  shorten,
} from '../../core/words/list.js';

interface Data {
  rule: string;
  tag: string;
  elements: number;
  changes: ReachFact['changes'];
}

/** A page whose buttons are as wide as there is room. */
const PAGE =
  '<!doctype html><html lang="en"><title>Seeds</title><style>button { width: 100% }</style><p>Spring</p><div data-mivket-slot="column"></div>';

export default defineCheck({
  id: 'host-style-reaches-in',
  subject: 'paste',
  level: 'concern',
  title: 'The page’s own styles change it',
  decided:
    'On the house’s own page each rule of the page’s that is for an element of the snippet’s is taken away for a moment: it is told where the element then has another size, colour or display. Not what is merely inherited.',
  standard: 'CSS Cascading and Inheritance Level 5',
  needs: ['reaching'],
  markup: false,
  judge: ({ markup, house, renders }) =>
    house.page === undefined
      ? []
      : flatMap(renders, (render) =>
          render.reaching.map((one): Fact<Data> => {
            const { rule, tag, elements, changes } = one;
            const { where, culprit } = blameElement(markup, one);
            return {
              where,
              culprit,
              group: rule,
              data: { rule, tag, elements, changes },
              seen: [makeSeen(render, { rule, changed: describe(changes) })],
            };
          }),
        ),
  says({ rule, tag, elements, changes }, { seen, culprit }) {
    const others = elements > 1 ? `, and ${countWords(elements - 1, 'other element')}` : '';
    return {
      message: `The page’s rule \`${shorten(rule, 60)}\` changes ${nameElement(tag, culprit)}${others} (${formatWidths(seen)}): ${describe(changes)}.`,
      notice: 'It looks otherwise on the page than where it was made.',
      cure: 'Give what matters a class and a rule of its own that outdoes the page’s.',
    };
  },
  measures: ({ changed }) => String(changed),
  brief: ({ rule }) => `the page’s \`${shorten(rule, 30)}\` changes it`,
  samples: [
    {
      rule: 'img',
      tag: 'img',
      elements: 1,
      changes: [{ what: 'width', with: '288 px', without: '640 px' }],
    },
  ],
  examples: {
    faulty: [
      {
        name: 'buttons that the page makes as wide as it is',
        code: '<button>Order seed</button>',
        under: { page: PAGE },
      },
    ],
    sound: [
      {
        name: 'an element that none of the page’s rules is for',
        code: '<p>Sow thinly, and wait.</p>',
        under: { page: PAGE },
      },
    ],
  },
});

function describe(changes: ReachFact['changes']): string {
  return joinWords(changes.map((one) => `${one.what} ${one.with}, ${one.without} without it`));
}
