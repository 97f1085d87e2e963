import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { atAttribute, blameElement } from '../../core/measure/blame.js';
import {
  describeShown,
  formatArea,
  getSharpness,
  listShownPictures,
  measureShown,
  type ShownMeasures,
} from '../../core/measure/pictures.js';
import { tell } from '../../core/tell.js';
import { formatWidths } from '../../core/words/list.js';

type Data = Record<never, never>;

type Measured = ShownMeasures & { density: number };

/** Fewer px than this share of those that it shows at are seen. */
const LEAST = 0.75;
/** What a screen has more than this nobody sees. */
const DENSEST = 2;

export default defineCheck({
  id: 'picture-blurry',
  subject: 'pictures',
  level: 'concern',
  title: 'A picture is shown larger than its file is',
  decided:
    'The file of an img has fewer px than 0.75 times the size that it shows at, times the density of the screen, counted as 2 at most. Not drawings, what is 2 px and less, and what is to show its px (`image-rendering: pixelated`).',
  standard: null,
  needs: ['pictures', 'traffic'],
  markup: false,
  judge: (c): Fact<Data, Measured>[] =>
    flatMap(c.renders, (render) =>
      flatMap(listShownPictures(render), (picture): Fact<Data, Measured>[] => {
        const density = Math.min(render.viewport.density, DENSEST);
        const sharpness = getSharpness(picture);
        if (picture.pixelated || sharpness === null || sharpness >= LEAST * density) return [];
        const blame = atAttribute(c.markup, blameElement(c.markup, picture), 'src', 'srcset');
        return [tell.seen(blame, {}, makeSeen(render, { ...measureShown(picture), density }))];
      }),
    ),
  says(_data, { seen }) {
    const [worst] = seen.toSorted((a, b) => getNeed(b.measured) - getNeed(a.measured));
    const { shownWidth: width = 0, shownHeight: height = 0, density = 1 } = worst?.measured ?? {};
    const needed = formatArea({ width: width * density, height: height * density });
    return {
      message: worst
        ? `The picture has ${formatArea(worst.measured)}, and shows at ${formatArea({ width, height })}${density > 1 ? ` on a screen of density ${density}` : ''} (${formatWidths(seen)}).`
        : 'The picture shows larger than its file is.',
      notice: 'It looks soft; small things and words in it cannot be made out.',
      cure: worst
        ? `Give it a file of ${needed}, or of several sizes by \`srcset\`; or show it smaller.`
        : 'Give it a larger file, or several sizes by `srcset`; or show it smaller.',
    };
  },
  measures: ({ density, ...shown }) => `${describeShown(shown)}, density ${density}`,
  samples: [{}],
  examples: {
    faulty: [
      {
        name: 'a small file over the whole column',
        code: '<img src="https://static.rootcellar.example/beans.png" width="640" height="480" alt="Runner beans drying on a rack" style="max-width: 100%; height: auto">',
      },
      {
        name: 'enough for a plain screen only',
        code: '<img src="https://static.rootcellar.example/beans.png" width="280" height="210" alt="Runner beans drying on a rack">',
      },
    ],
    sound: [
      {
        name: 'as many as a dense screen shows',
        code: '<img src="https://static.rootcellar.example/beans.png" width="160" height="120" alt="Runner beans drying on a rack">',
      },
      {
        name: 'a larger one for dense screens',
        code: '<img srcset="https://static.rootcellar.example/beans.png 1x, https://static.rootcellar.example/talk.png 2x" src="https://static.rootcellar.example/beans.png" width="320" height="180" alt="Seed talk" style="max-width: 100%; height: auto; object-fit: cover">',
      },
      {
        name: 'its px are meant to show',
        code: '<img src="https://static.rootcellar.example/beans.png" width="640" height="480" alt="Beans, drawn in squares" style="max-width: 100%; height: auto; image-rendering: pixelated">',
      },
    ],
  },
});

/** How many px it shows at, across. */
function getNeed({ shownWidth, density }: Measured): number {
  return shownWidth * density;
}
