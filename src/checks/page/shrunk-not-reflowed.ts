import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { blameText, listSmallTexts } from '../../core/measure/texts.js';
import { formatSize } from '../../core/measure/units.js';
import { tell } from '../../core/tell.js';
import { formatWidths } from '../../core/words/list.js';

interface Data {
  sample: string;
  size: number;
  largest: number;
  limit: number;
}

type Measured = { size: number; text: string };

export default defineCheck({
  id: 'shrunk-not-reflowed',
  subject: 'page',
  level: 'concern',
  title: 'A text shrinks with the window',
  decided:
    'The letters of a text that shows (their font size times all that scales them) are under the house’s smallest size (12 px) in some windows, and not in others.',
  standard: 'WCAG 2.2, 1.4.10 Reflow',
  needs: ['texts', 'frames'],
  markup: false,
  judge({ markup, house, renders }): Fact<Data, Measured>[] {
    const limit = house.limits.smallestText;
    return listSmallTexts(renders, limit, true).map(
      ({ render, text, largest }): Fact<Data, Measured> => {
        const blame = blameText(markup, text);
        const data = { sample: text.sample, size: text.size, largest, limit };
        const seen = makeSeen(render, { size: text.size, text: text.sample });
        return tell.seen(blame, data, seen, { group: '' });
      },
    );
  },
  says: ({ sample, size, largest, limit }, { seen }) => ({
    message: `The letters are down to ${formatSize(size)} ${formatWidths(seen)}, and ${formatSize(largest)} elsewhere: “${sample}”.`,
    notice: 'On these screens it is too small to be read without zooming in.',
    cure: `Let it take up more lines instead of shrinking, with letters of ${formatSize(limit)} at least.`,
  }),
  measures: ({ size }) => `${formatSize(size)} as seen`,
  brief: ({ size }) => `text down to ${formatSize(size)} on some screens`,
  samples: [{ sample: 'Sow thinly', size: 6, largest: 16, limit: 12 }],
  examples: {
    faulty: [
      {
        name: 'a drawing that shrinks with its words',
        code: '<svg viewBox="0 0 600 100" style="width: 100%" role="img" aria-label="Calendar"><text x="10" y="50" font-size="14">Sow beans in May, and peas in March</text></svg>',
      },
      {
        name: 'letters as wide as the window',
        code: '<p style="font-size: 1.5vw">Members borrow seed in spring.</p>',
      },
    ],
    sound: [
      {
        name: 'letters with a least size',
        code: '<p style="font-size: max(12px, 1.5vw)">Members borrow seed in spring.</p>',
      },
      {
        name: 'a drawing with large words',
        code: '<svg viewBox="0 0 300 100" style="width: 100%" role="img" aria-label="Calendar"><text x="10" y="50" font-size="16">Sow beans in May</text></svg>',
      },
    ],
  },
});
