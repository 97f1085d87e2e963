import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { blameElement } from '../../core/measure/blame.js';
import {
  describeShown,
  formatArea,
  listShownPictures,
  measureShown,
  type ShownMeasures,
  type ShownPicture,
} from '../../core/measure/pictures.js';
import { tell } from '../../core/tell.js';
import { formatWidths, getWorstSeen } from '../../core/words/list.js';

type Data = Record<never, never>;

type Measured = ShownMeasures & { percent: number };

/** So much off nobody sees, and so much is rounding, px. */
const [MOST, ROUNDING] = [3, 1];

export default defineCheck({
  id: 'picture-squeezed',
  subject: 'pictures',
  level: 'concern',
  title: 'A picture is out of shape',
  decided:
    'An img shows in other proportions than its file has, by more than 3 % and more than a px, and nothing crops it (`object-fit`). Not drawings, and what is 2 px and less.',
  standard: 'CSS Images 3, 5.5 Sizing Objects: the object-fit property',
  needs: ['pictures', 'traffic'],
  markup: false,
  judge: (c): Fact<Data, Measured>[] =>
    flatMap(c.renders, (render) =>
      flatMap(listShownPictures(render), (picture): Fact<Data, Measured>[] => {
        const percent = getSqueeze(picture);
        if (percent <= MOST) return [];
        const seen = makeSeen(render, { ...measureShown(picture), percent });
        return [tell.seen(blameElement(c.markup, picture), {}, seen)];
      }),
    ),
  says(_data, { seen }) {
    const worst = getWorstSeen(seen, 'percent')?.measured;
    return {
      message: worst
        ? `The picture is ${formatArea(worst)} and shows at ${formatArea({ width: worst.shownWidth, height: worst.shownHeight })}: ${Math.round(worst.percent)} % out of shape (${formatWidths(seen)}).`
        : 'The picture shows in other proportions than its own.',
      notice: 'What is in it looks squeezed or drawn out.',
      cure: 'Let its height follow from its width: `height: auto`; or crop it: `object-fit: cover`.',
    };
  },
  mend: (_data, { culprit }) =>
    culprit.at === 'element'
      ? [{ do: 'set-style', element: culprit.offset, declarations: { height: 'auto' } }]
      : null,
  measures: describeShown,
  brief: (_data, { seen }) => {
    const worst = getWorstSeen(seen, 'percent')?.measured;
    return worst ? `a picture ${Math.round(worst.percent)} % out of shape` : 'out of shape';
  },
  samples: [{}],
  examples: {
    faulty: [
      {
        name: 'a height that stays when the width gives way',
        code: '<img src="https://static.rootcellar.example/talk.png" width="600" height="337" alt="A talk in the glasshouse" style="max-width: 100%">',
      },
      {
        name: 'a square made of a landscape',
        code: '<img src="https://static.rootcellar.example/beans.png" width="120" height="120" alt="Runner beans drying on a rack">',
      },
    ],
    sound: [
      {
        name: 'a height that follows',
        code: '<img src="https://static.rootcellar.example/talk.png" width="640" height="360" alt="A talk in the glasshouse" style="max-width: 100%; height: auto">',
      },
      {
        name: 'cropped to a square',
        code: '<img src="https://static.rootcellar.example/beans.png" width="120" height="120" alt="Runner beans drying on a rack" style="object-fit: cover">',
      },
      {
        name: 'a hair off, by rounding',
        code: '<img src="https://static.rootcellar.example/beans.png" width="100" height="74" alt="Runner beans drying on a rack">',
      },
    ],
  },
});

/** By how much one side is longer than it would be by the other, percent; 0 for what is rounded. */
function getSqueeze({ pixels, drawn, fit }: ShownPicture): number {
  if (fit !== 'fill') return 0;
  const [across, down] = [drawn.width / pixels.width, drawn.height / pixels.height];
  const off = Math.abs(drawn.height - pixels.height * across);
  const percent = 100 * (Math.max(across, down) / Math.min(across, down) - 1);
  return off > ROUNDING ? percent : 0;
}
