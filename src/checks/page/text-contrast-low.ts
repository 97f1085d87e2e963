import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { blameElement } from '../../core/measure/blame.js';
import { getLeastContrast } from '../../core/measure/contrast.js';
import {
  formatContrast,
  formatRatio,
  locateColour,
  readContrast,
  type PaintedText,
} from '../../core/measure/texts.js';
import { tell } from '../../core/tell.js';
import { formatWidths, shorten } from '../../core/words/list.js';

interface Data extends PaintedText {
  least: number;
}

export default defineCheck({
  id: 'text-contrast-low',
  subject: 'page',
  level: 'concern',
  title: 'Text is hard to tell from what is behind it',
  decided:
    'The contrast of its colour with what is behind it, both as painted, is under 4.5:1; of letters of 24 px and more, or bold ones of 18.66 px and more, under 3:1. In each scheme of the viewports. Not of controls that are not in use, nor where text and ground are wholly the page’s own.',
  standard: 'WCAG 2.2, 1.4.3 Contrast (Minimum)',
  needs: ['texts'],
  markup: false,
  published: true,
  judge: ({ markup, renders }) =>
    flatMap(renders, (render) =>
      flatMap(render.texts, (text): Fact<Data>[] => {
        const painted = readContrast(text);
        const least = getLeastContrast(text);
        if (painted === null || painted.contrast >= least) return [];
        const { contrast, colour, ground } = painted;
        const blame = blameElement(markup, text);
        return [
          tell.seen(
            { ...blame, where: locateColour(markup, blame, colour) },
            { ...painted, least },
            makeSeen(render, { contrast, colour, ground, lack: least - contrast }),
            { group: '' },
          ),
        ];
      }),
    ),
  says({ sample, colour, ground, contrast, least }, { seen }) {
    return {
      message: `The text “${shorten(sample, 30)}” has a contrast of ${formatRatio(contrast)}, ${colour} on ${ground}; it needs ${formatRatio(least)} (${formatWidths(seen)}).`,
      notice: 'People who do not see well cannot read it, nor can anybody in bright light.',
      cure: 'Make the text darker or lighter, or what is behind it.',
    };
  },
  measures: formatContrast,
  brief: ({ contrast }) => `text with a contrast of ${formatRatio(contrast)}`,
  samples: [
    { sample: 'Sow thinly', colour: '#999999', ground: '#ffffff', contrast: 2.84, least: 4.5 },
  ],
  examples: {
    faulty: [
      {
        name: 'light grey on white',
        code: '<p style="color: #999; background: #fff">Sow thinly in rows a hand apart.</p>',
      },
    ],
    sound: [
      {
        name: 'dark grey on white',
        code: '<p style="color: #595959; background: #fff">Sow thinly in rows a hand apart.</p>',
      },
      {
        name: 'large letters in a lighter grey',
        code: '<p style="color: #868686; background: #fff; font-size: 26px">Sow thinly.</p>',
      },
    ],
  },
});
