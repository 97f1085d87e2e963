import { defineCheck, makeSeen, type Fact, type MarkupFact } from '../../core/check.js';
import type { DrawingFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { isHidden } from '../../core/markup/hidden.js';
import { getValue, type MarkupElement } from '../../core/markup/markup.js';
import { atTag, blameElement, getBlamed } from '../../core/measure/blame.js';
import type { Intent } from '../../core/mend/intent.js';
import { tell } from '../../core/tell.js';

interface Data {
  /** What it says of its size. */
  width: string;
  height: string;
  /** The view box that holds all that is painted; null where that is not known. */
  viewBox: string | null;
}

type Measured = { width: number; height: number };

export default defineCheck({
  id: 'vector-without-viewbox',
  subject: 'pictures',
  level: 'concern',
  title: 'A drawing is cut off where it gets smaller',
  decided:
    'An svg of the snippet’s own that shows has a width and a height and no viewBox, so that what is in it does not scale with it.',
  standard: 'SVG 2, 8.6 The viewBox attribute',
  needs: ['drawings'],
  markup: true,
  judge: (c): Fact<Data, Measured>[] =>
    flatMap(c.renders, (render) =>
      flatMap(render.drawings, (drawing): Fact<Data, Measured>[] => {
        const blame = blameElement(c.markup, drawing);
        const element = getBlamed(c.markup, blame);
        if (!drawing.shown || drawing.viewBox || !element) return [];
        if (!isFixed(element) || !draws(element)) return [];
        const { width, height } = drawing.box;
        const data = { ...readSize(element), viewBox: suggest(element, drawing) };
        return [tell.seen(blame, data, makeSeen(render, { width, height }))];
      }),
    ),
  unrendered: ({ markup }) =>
    markup.elements
      .filter((one) => one.name === 'svg' && isFixed(one) && isOutermost(one))
      .filter((one) => getValue(one, 'viewBox') === null && !isHidden(markup, one) && draws(one))
      .map((one): MarkupFact<Data> => tell.markup(atTag(one), { ...readSize(one), viewBox: null })),
  says: ({ width, height, viewBox }) => ({
    message: `The drawing has a width (${width}) and a height (${height}) and no viewBox.`,
    notice:
      'Where it is made smaller or larger it is cut off, or stands in a corner, instead of scaling.',
    cure: viewBox
      ? `Add \`viewBox="${viewBox}"\`, which holds all that it draws.`
      : 'Add a viewBox with the bounds of what it draws.',
  }),
  mend: ({ viewBox }, { culprit }): Intent[] | null =>
    culprit.at === 'element' && viewBox
      ? [{ do: 'set-attribute', element: culprit.offset, name: 'viewBox', value: viewBox }]
      : null,
  measures: ({ width, height }) => `${Math.round(width)} × ${Math.round(height)} px`,
  samples: [{ width: '40', height: '40', viewBox: '0 0 40 40' }],
  examples: {
    faulty: [
      {
        name: 'a bean',
        code: '<svg width="40" height="40" aria-hidden="true"><circle r="9" cx="20" cy="20" /></svg>',
      },
    ],
    sound: [
      {
        name: 'a bean that can be scaled',
        code: '<svg width="40" height="40" viewBox="0 0 40 40" aria-hidden="true"><circle r="9" cx="20" cy="20" /></svg>',
      },
      {
        name: 'a shape that scales by a box of its own',
        code: '<svg style="display: none"><symbol id="bean" viewBox="0 0 40 40"><circle r="9" cx="20" cy="20" /></symbol></svg><svg width="40" height="40" aria-hidden="true"><use href="#bean" /></svg>',
      },
      {
        name: 'shapes that are kept for others',
        code: '<svg width="0" height="0" style="position: absolute" aria-hidden="true"><defs><path id="bean" d="M2 2h8v8z" /></defs></svg><p>Sow in May.</p>',
      },
    ],
  },
});

/** Both sizes are said, and are more than nothing. */
function isFixed(element: MarkupElement): boolean {
  return ['width', 'height'].every((name) => parseFloat(getValue(element, name) ?? '') > 0);
}

function isOutermost({ parent }: MarkupElement): boolean {
  for (let at = parent; at; at = at.parent) if (at.name === 'svg') return false;
  return true;
}

/** Something is painted in it, and neither kept for others nor another’s, which scales by its own box. */
function draws({ children }: MarkupElement): boolean {
  return children.some(({ name }) => !/^(defs|symbol|use|title|desc|style|metadata)$/.test(name));
}

function readSize(element: MarkupElement): Pick<Data, 'width' | 'height'> {
  return { width: getValue(element, 'width') ?? '', height: getValue(element, 'height') ?? '' };
}

/** What it has by its size, so that it stays as it looks; wider where more is painted. */
function suggest(element: MarkupElement, { bounds }: DrawingFact): string | null {
  const { width, height } = readSize(element);
  const isPlain = [width, height].every((one) => /^\s*[\d.]+(px)?\s*$/.test(one));
  if (!isPlain) return bounds && [bounds.x, bounds.y, bounds.width, bounds.height].join(' ');
  return `0 0 ${parseFloat(width)} ${parseFloat(height)}`;
}
