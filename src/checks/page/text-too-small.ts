import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { blameText, listSmallTexts } from '../../core/measure/texts.js';
import { formatSize } from '../../core/measure/units.js';
import { tell } from '../../core/tell.js';

interface Data {
  sample: string;
  size: number;
  limit: number;
}

type Measured = { size: number; text: string };

export default defineCheck({
  id: 'text-too-small',
  subject: 'page',
  level: 'advice',
  title: 'A text is small at every width',
  decided:
    'The letters of a text that shows are under the house’s smallest size (12 px) in every window: their font size times all that scales them. Marks such as sup and sub are left out.',
  standard: null,
  needs: ['texts', 'frames'],
  markup: false,
  published: true,
  judge({ markup, house, renders }): Fact<Data, Measured>[] {
    const limit = house.limits.smallestText;
    return listSmallTexts(renders, limit, false).map(({ render, text }): Fact<Data, Measured> => {
      const blame = blameText(markup, text);
      const data = { sample: text.sample, size: text.size, limit };
      const seen = makeSeen(render, { size: text.size, text: text.sample });
      return tell.seen(blame, data, seen, { group: '' });
    });
  },
  says: ({ sample, size, limit }) => ({
    message: `The text has letters of ${formatSize(size)}: “${sample}”.`,
    notice: 'Many people cannot read it, or have to zoom in to do so.',
    cure: `Make it ${formatSize(limit)} at least.`,
  }),
  measures: ({ size }) => `${formatSize(size)} as seen`,
  brief: ({ size }) => `text of ${formatSize(size)}`,
  samples: [{ sample: 'Sow thinly', size: 9, limit: 12 }],
  examples: {
    faulty: [
      {
        name: 'a line of small print',
        code: '<p>Sow in May.</p><p style="font-size: 9px">Members borrow seed in spring and bring some back in autumn.</p>',
      },
      {
        name: 'made smaller by a scale',
        code: '<div style="transform: scale(0.5); transform-origin: left top"><p>Members borrow seed in spring.</p></div>',
      },
    ],
    sound: [
      {
        name: 'as large as the house wants it',
        code: '<p style="font-size: 12px">Members borrow seed in spring.</p>',
      },
      {
        name: 'a mark for a footnote',
        code: '<p style="font-size: 13px">Beans<sup>1</sup> and peas<sub style="font-size: 8px">2</sub></p>',
      },
      {
        name: 'small letters made larger',
        code: '<p style="font-size: 8px; zoom: 2">Members borrow seed in spring.</p>',
      },
    ],
  },
});
