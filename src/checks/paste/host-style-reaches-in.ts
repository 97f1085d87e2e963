import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import type { Baseline, ReachFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { blameElement } from '../../core/measure/blame.js';
import { formatColour } from '../../core/measure/contrast.js';
import { tell } from '../../core/tell.js';
import {
  countWords,
  formatWidths,
  joinWords,
  nameElement,
  shorten,
} from '../../core/words/list.js';

type Data = Pick<ReachFact, 'rule' | 'tag' | 'way' | 'name' | 'elements' | 'changes'>;

type Measured = { rule: string; changed: string };

/** A page that has a card of its own, and more room above what stands in it. */
const PAGE =
  '<!doctype html><html lang="en"><title>Seeds</title><style>a { color: #2f5d3a } .card { width: 120px; background: #e8e2d2 } #beds p { margin-top: 40px }</style><main id="beds"><p>Spring</p><div data-mivket-slot="column"></div></main>';

/** What comes of it, by how it breaks something. */
const BREAKS: Record<Exclude<ReachFact['way'], 'name' | 'stated'>, string> = {
  wide: 'does not fit into its room',
  cut: 'is cut off',
  faint: 'cannot be read',
  hidden: 'is not shown',
  dead: 'takes no clicks',
};

export default defineCheck({
  id: 'host-style-reaches-in',
  subject: 'paste',
  level: 'concern',
  title: 'The page’s own styles change it',
  decided:
    'On the house’s own page each rule of the page’s that is for an element of the snippet’s is taken away for a moment. It is told where it goes by a class or id that both use and changes size, colour or display; where it outdoes what the snippet states for that element; or where something does not fit, is cut off, cannot be read or used, and without the rule does and can. Not the look that a page lends, nor what is merely inherited.',
  standard: 'CSS Cascading and Inheritance Level 5',
  needs: ['reaching'],
  markup: false,
  judge: ({ markup, house, renders }) =>
    house.page === undefined
      ? []
      : flatMap(renders, (render) =>
          render.reaching.filter(isHost(render.baseline)).map((one): Fact<Data, Measured> => {
            const { rule, tag, way, name, elements, changes } = one;
            const blame = blameElement(markup, one);
            return tell.seen(
              blame,
              { rule, tag, way, name, elements, changes },
              makeSeen(render, { rule, changed: describeChange(one) }),
              { group: rule },
            );
          }),
        ),
  says({ rule, tag, way, name, elements, changes }, { seen, culprit }) {
    const others = elements > 1 ? `, and ${countWords(elements - 1, 'other element')}` : '';
    const about = `${nameElement(tag, culprit)}${others} (${formatWidths(seen)})`;
    const change = describeChange({ way, changes });
    const style = `The page’s own style \`${shorten(rule, 60)}\``;
    if (way === 'name')
      return {
        message: `${style} is for \`${name}\`, a name that the snippet uses too, and changes ${about}: ${change}.`,
        notice: 'It looks otherwise on the page than where it was made.',
        cure: `Give it a name of the snippet’s own in the place of \`${name}\`, such as \`${name}-seeds\`.`,
      };
    return {
      message:
        way === 'stated'
          ? `${style} outdoes what the snippet states for ${about}: ${change}.`
          : `Because of the page’s own style \`${shorten(rule, 60)}\` ${about} ${change}.`,
      notice:
        way === 'stated'
          ? 'It looks otherwise on the page than where it was made.'
          : 'What works where it was made does not on this page.',
      cure: 'State it in a rule that outdoes the page’s: with a class of the snippet’s own before it, such as `.seed-box.seed-box`.',
    };
  },
  measures: ({ changed }) => changed,
  brief: ({ rule }) => `the page’s \`${shorten(rule, 30)}\` changes it`,
  samples: [
    {
      rule: '.card',
      tag: 'div',
      way: 'name',
      name: '.card',
      elements: 1,
      changes: [{ what: 'width', with: '288 px', without: '640 px' }],
    },
    {
      rule: 'main p',
      tag: 'p',
      way: 'stated',
      name: '',
      elements: 2,
      changes: [{ what: 'margin-top', with: '40px', without: '0px' }],
    },
    { rule: 'main a', tag: 'a', way: 'faint', name: '', elements: 1, changes: [] },
  ],
  examples: {
    faulty: [
      {
        name: 'a class that the page has too',
        code: '<div class="card">Order seed</div>',
        under: { page: PAGE },
      },
      {
        name: 'room that it has taken away, and the page gives back',
        code: '<style>.may { margin-top: 0 }</style><p class="may">Sow in May</p>',
        under: { page: PAGE },
      },
    ],
    sound: [
      {
        name: 'the page’s look, which is what is wanted',
        code: '<p>Sow thinly, and <a href="#wait">wait</a>.</p>',
        under: { page: PAGE },
      },
      {
        name: 'what the snippet states, and the page leaves alone',
        code: '<p class="seed-box" style="margin-top: 0">Sow thinly.</p>',
        under: { page: PAGE },
      },
    ],
  },
});

/** What it does, as a report says it: what changed, or what comes of it. */
function describeChange({ way, changes }: Pick<ReachFact, 'way' | 'changes'>): string {
  if (way !== 'name' && way !== 'stated') return BREAKS[way];
  return joinWords(
    changes.map(
      ({ what, ...one }) => `${what} ${nameValue(one.with)}, ${nameValue(one.without)} without it`,
    ),
  );
}

/** A computed colour as people write it. */
function nameValue(value: string): string {
  if (/^rgba\(\d+, \d+, \d+, 0\)$/.test(value)) return 'none';
  const parts = /^rgb\((\d+), (\d+), (\d+)\)$/.exec(value)?.slice(1);
  return parts ? formatColour(parts.map(Number)) : value;
}

/** What a script of the snippet's own adds to the page is not the page's. */
function isHost(baseline: Baseline | null): (one: ReachFact) => boolean {
  const sheets = baseline?.sheets ?? null;
  return ({ sheet }) => sheets === null || sheets.includes(sheet);
}
