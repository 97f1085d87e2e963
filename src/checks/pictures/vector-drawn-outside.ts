import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import type { Box, DrawingFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { atAttribute, blameElement } from '../../core/measure/blame.js';
import type { Intent } from '../../core/mend/intent.js';
import { tell } from '../../core/tell.js';
import { getMost } from '../../core/words/list.js';

interface Data {
  viewBox: string;
  /** The view box that holds all that is painted. */
  whole: string;
}

type Measured = { percent: number };

/** So much beyond nobody misses, percent of the side. */
const MOST = 2;

export default defineCheck({
  id: 'vector-drawn-outside',
  subject: 'pictures',
  level: 'concern',
  title: 'A drawing is larger than its view box',
  decided:
    'What is painted in an svg that shows, lines included, leaves its view box by more than 2 % of a side, and is cut off there. Not where something else than plain shapes is painted, or shapes are turned, cut or masked: then it is not plain where they end.',
  standard: 'SVG 2, 8.6 The viewBox attribute',
  needs: ['drawings'],
  markup: false,
  judge: (c): Fact<Data, Measured>[] =>
    flatMap(c.renders, (render) =>
      flatMap(render.drawings, (drawing): Fact<Data, Measured>[] => {
        const { viewBox, bounds, shown, cuts } = drawing;
        if (!shown || !cuts || !viewBox || !bounds) return [];
        const percent = getBeyond(viewBox, bounds);
        if (percent <= MOST) return [];
        const data = { viewBox: formatBox(viewBox), whole: formatBox(join(drawing)) };
        const blame = atAttribute(c.markup, blameElement(c.markup, drawing), 'viewBox');
        return [tell.seen(blame, data, makeSeen(render, { percent }))];
      }),
    ),
  says: ({ viewBox, whole }, { seen }) => ({
    message: `What is drawn reaches ${seen.length > 0 ? `${Math.round(getMost(seen, 'percent'))} % ` : ''}beyond its view box (${viewBox}), and is cut off there.`,
    notice: 'A piece of the drawing is missing at its edge.',
    cure: `Make the view box as large as what is drawn: \`viewBox="${whole}"\`.`,
  }),
  mend: ({ whole }, { culprit }): Intent[] | null =>
    culprit.at === 'element'
      ? [{ do: 'set-attribute', element: culprit.offset, name: 'viewBox', value: whole }]
      : null,
  measures: ({ percent }) => `${Math.round(percent)} % beyond`,
  samples: [{ viewBox: '0 0 24 24', whole: '-2 0 28 24' }],
  examples: {
    faulty: [
      {
        name: 'a circle that is cut off',
        code: '<svg width="48" height="48" viewBox="0 0 24 24" aria-hidden="true"><circle r="14" cx="12" cy="12" fill="#246b35" /></svg>',
      },
      {
        name: 'a line along the edge',
        code: '<svg width="48" height="48" viewBox="0 0 24 24" aria-hidden="true"><path d="M0 0h24v24H0z" fill="none" stroke="#246b35" stroke-width="4" /></svg>',
      },
    ],
    sound: [
      {
        name: 'a circle that has room',
        code: '<svg width="48" height="48" viewBox="0 0 24 24" aria-hidden="true"><circle r="11" cx="12" cy="12" fill="#246b35" /></svg>',
      },
      {
        name: 'it may show beyond its box',
        code: '<svg width="48" height="48" viewBox="0 0 24 24" aria-hidden="true" style="overflow: visible"><circle r="14" cx="12" cy="12" fill="#246b35" /></svg>',
      },
      {
        name: 'what is not painted may be anywhere',
        code: '<svg width="48" height="48" viewBox="0 0 24 24" aria-hidden="true"><path d="M-9 -9h60v60H-9z" fill="none" /><circle r="11" cx="12" cy="12" fill="#246b35" /></svg>',
      },
    ],
  },
});

/** By how much it leaves it at the worst side, percent of that side. */
function getBeyond(view: Box, bounds: Box): number {
  const across = Math.max(view.x - bounds.x, bounds.x + bounds.width - view.x - view.width);
  const down = Math.max(view.y - bounds.y, bounds.y + bounds.height - view.y - view.height);
  return 100 * Math.max(0, across / view.width, down / view.height);
}

function join({ viewBox, bounds }: DrawingFact): Box {
  const [a, b] = [viewBox!, bounds!];
  const [x, y] = [Math.min(a.x, b.x), Math.min(a.y, b.y)];
  return {
    ...{ x, y },
    width: Math.max(a.x + a.width, b.x + b.width) - x,
    height: Math.max(a.y + a.height, b.y + b.height) - y,
  };
}

function formatBox({ x, y, width, height }: Box): string {
  return [x, y, width, height].map((one) => Math.round(one * 100) / 100).join(' ');
}
