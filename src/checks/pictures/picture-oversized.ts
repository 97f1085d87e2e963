import { defineCheck, makeSeen, type Fact, type RenderOf } from '../../core/check.js';
import { flatMap, groupBy } from '../../core/lists.js';
import { atAttribute, blameElement } from '../../core/measure/blame.js';
import { findAnswer } from '../../core/measure/failed.js';
import {
  describeShown,
  formatArea,
  getSharpness,
  listShownPictures,
  measureShown,
  type ShownMeasures,
  type ShownPicture,
} from '../../core/measure/pictures.js';
import { formatBytes } from '../../core/measure/units.js';
import { getElementKey } from '../../core/search/spans.js';
import { tell } from '../../core/tell.js';

interface Data {
  address: string;
  /** What it weighs, and what of that could go, bytes. */
  bytes: number;
  spare: number;
  /** So large a file is enough. */
  enough: { width: number; height: number };
}

type Measured = ShownMeasures & { density: number };

/** So many times the px that show, along a side. */
const MOST = 2;
/** Less is not worth a file of its own, bytes. */
const LEAST = 50_000;

interface Sight {
  render: RenderOf<'pictures' | 'traffic'>;
  picture: ShownPicture;
  /** How many times the px that show it has, along a side. */
  times: number;
}

export default defineCheck({
  id: 'picture-oversized',
  subject: 'pictures',
  level: 'advice',
  title: 'A picture’s file is much larger than it shows',
  decided:
    'The file of an img has over twice as many px along a side as it shows at in the densest of the windows, in every window where it was chosen, and over 50 kB of it could go: its bytes by its px, those that show left out.',
  standard: null,
  needs: ['pictures', 'traffic'],
  markup: false,
  judge(c): Fact<Data, Measured>[] {
    const sights = flatMap(c.renders, listSights);
    return flatMap(groupByPicture(sights), (all) => {
      const data = weigh(all);
      if (!data) return [];
      return all.map(({ render, picture }): Fact<Data, Measured> => {
        const { density } = render.viewport;
        return tell.seen(
          atAttribute(c.markup, blameElement(c.markup, picture), 'src', 'srcset'),
          data,
          makeSeen(render, { ...measureShown(picture), density }),
          { group: data.address },
        );
      });
    });
  },
  says({ address, bytes, spare, enough }, { seen }) {
    const [first] = seen;
    const size = first ? `${formatArea(first.measured)} and ` : '';
    return {
      message: `The picture has ${size}${formatBytes(bytes)}, where ${formatArea(enough)} are enough in every window: about ${formatBytes(spare)} are for nothing (${address}).`,
      notice: 'Visitors wait for it, and pay for it, longer than they need to.',
      cure: `Give it a file of ${formatArea(enough)}, or several by \`srcset\`.`,
    };
  },
  measures: ({ density, ...shown }) => `${describeShown(shown)}, density ${density}`,
  brief: ({ spare }) => `a picture with ${formatBytes(spare)} for nothing`,
  samples: [
    {
      address: 'https://static.rootcellar.example/pea.png',
      bytes: 900_000,
      spare: 800_000,
      enough: { width: 640, height: 480 },
    },
  ],
  examples: {
    faulty: [
      {
        name: 'a heavy file as a small picture',
        code: '<img src="https://static.rootcellar.example/weighty/talk.png" width="96" height="54" alt="A talk in the glasshouse">',
        under: { limits: { totalBytes: '9MB' } },
      },
    ],
    sound: [
      {
        name: 'a small file as a small picture',
        code: '<img src="https://static.rootcellar.example/talk.png" width="96" height="54" alt="A talk in the glasshouse">',
      },
      {
        name: 'a heavy file that dense screens need',
        code: '<img src="https://static.rootcellar.example/weighty/talk.png" width="240" height="135" alt="A talk in the glasshouse">',
        under: { limits: { totalBytes: '9MB' } },
      },
    ],
  },
});

function listSights(render: RenderOf<'pictures' | 'traffic'>): Sight[] {
  return flatMap(listShownPictures(render), (picture) => {
    const sharpness = getSharpness(picture);
    return sharpness === null
      ? []
      : [{ render, picture, times: sharpness / render.viewport.density }];
  });
}

function groupByPicture(sights: readonly Sight[]): Sight[][] {
  const getKey = ({ picture }: Sight) => `${getElementKey(picture)} ${picture.address}`;
  return [...groupBy(sights, getKey).values()];
}

/** What of a file could go, by where most of it shows; null where that is little. */
function weigh(all: readonly Sight[]): Data | null {
  const [largest] = all.toSorted((a, b) => a.times - b.times);
  if (!largest || largest.times <= MOST) return null;
  const { pixels, address } = largest.picture;
  const bytes = Math.max(...all.map(({ render }) => countBytes(address, render)));
  const spare = Math.round(bytes * (1 - 1 / largest.times ** 2));
  if (spare <= LEAST) return null;
  const side = (length: number) => Math.ceil(length / largest.times);
  return {
    ...{ address: shortenData(address), bytes, spare },
    enough: { width: side(pixels.width), height: side(pixels.height) },
  };
}

/** Of a file in the address itself three bytes in four letters. */
function countBytes(address: string, { traffic }: RenderOf<'traffic'>): number {
  if (address.startsWith('data:')) return Math.round(address.length * 0.75);
  return findAnswer(address, traffic)?.wire ?? 0;
}

function shortenData(address: string): string {
  return address.startsWith('data:') ? `${address.slice(0, 24)}…` : address;
}
