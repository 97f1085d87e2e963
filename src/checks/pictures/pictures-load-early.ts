import { defineCheck, makeSeen, type Fact, type RenderOf } from '../../core/check.js';
import type { PictureFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { blameElement, getSourceOffset } from '../../core/measure/blame.js';
import { findAnswer } from '../../core/measure/failed.js';
import { formatBytes } from '../../core/measure/units.js';
import type { Intent } from '../../core/mend/intent.js';
import { getElementKey } from '../../core/search/spans.js';
import { tell } from '../../core/tell.js';
import { countWords } from '../../core/words/list.js';

interface Data {
  bytes: number;
  count: number;
  /** The offsets of those that stand in the source. */
  written: number[];
}

type Measured = { bytes: number; pictures: number };

/** So many screens down hardly anybody comes at once. */
const SCREENS = 2;
/** Less is not worth it, bytes. */
const LEAST = 200_000;

interface Deep {
  picture: PictureFact;
  bytes: number;
}

export default defineCheck({
  id: 'pictures-load-early',
  subject: 'pictures',
  level: 'advice',
  title: 'Pictures far down the page are loaded at once',
  decided:
    'The img of over 200 kB together which begin further down than two screens in every window have no `loading="lazy"`.',
  standard: 'HTML Living Standard, 2.4.6 Lazy loading attributes',
  needs: ['pictures', 'traffic'],
  markup: false,
  judge(c): Fact<Data, Measured>[] {
    const all = c.renders.map((render) => ({ render, deep: listDeep(render) }));
    const everywhere = ({ picture }: Deep) =>
      all.every(({ deep }) =>
        deep.some((one) => getElementKey(one.picture) === getElementKey(picture)),
      );
    const found = all.map(({ render, deep }) => ({ render, deep: deep.filter(everywhere) }));
    const [heaviest] = found.toSorted((a, b) => sum(b.deep) - sum(a.deep));
    if (!heaviest || sum(heaviest.deep) <= LEAST) return [];
    const pictures = heaviest.deep.map(({ picture }) => picture);
    const written = flatMap(pictures, ({ from }) => ('offset' in from ? [from.offset] : []));
    const data = { bytes: sum(heaviest.deep), count: pictures.length, written };
    const seen = found.map(({ render, deep }) =>
      makeSeen(render, { bytes: sum(deep), pictures: deep.length }),
    );
    const [first] = pictures.toSorted(
      (a, b) => (getSourceOffset(a.from) ?? 0) - (getSourceOffset(b.from) ?? 0),
    );
    return [tell.seen(blameElement(c.markup, first!), data, seen, { group: '' })];
  },
  says: ({ bytes, count }) => ({
    message: `${count === 1 ? 'A picture' : countWords(count, 'picture')} of ${formatBytes(bytes)}${count === 1 ? '' : ' together'}, further down than two screens in every window, ${count === 1 ? 'is' : 'are'} loaded at once.`,
    notice: 'What visitors do see comes later, for the sake of what few scroll to.',
    cure: 'Let them wait until somebody comes near: `loading="lazy"`.',
  }),
  mend: ({ count, written }): Intent[] | null =>
    written.length < count
      ? null
      : written.map((element) => ({
          ...{ do: 'set-attribute', element, name: 'loading', value: 'lazy' },
        })),
  measures: ({ bytes, pictures }) => `${countWords(pictures, 'picture')} of ${formatBytes(bytes)}`,
  samples: [{ bytes: 400_000, count: 2, written: [] }],
  examples: {
    faulty: [
      {
        name: 'a picture under a long text',
        code: '<p style="height: 2600px">Spring</p><img src="https://static.rootcellar.example/weighty/talk.png" width="240" height="135" alt="A talk in the glasshouse">',
        under: { limits: { totalBytes: '9MB' } },
      },
    ],
    sound: [
      {
        name: 'the same picture, which waits',
        code: '<p style="height: 2600px">Spring</p><img src="https://static.rootcellar.example/weighty/talk.png" width="240" height="135" loading="lazy" alt="A talk in the glasshouse">',
        under: { limits: { totalBytes: '9MB' } },
      },
      {
        name: 'a light picture under a long text',
        code: '<p style="height: 2600px">Spring</p><img src="https://static.rootcellar.example/talk.png" width="240" height="135" alt="A talk in the glasshouse">',
      },
      {
        name: 'a heavy one in the second screen',
        code: '<p style="height: 900px">Spring</p><img src="https://static.rootcellar.example/weighty/talk.png" width="240" height="135" alt="A talk in the glasshouse">',
        under: { limits: { totalBytes: '9MB' } },
      },
    ],
  },
});

function listDeep({ pictures, traffic, viewport }: RenderOf<'pictures' | 'traffic'>): Deep[] {
  return pictures
    .filter(({ tag, lazy, shown }) => tag === 'img' && shown && !lazy)
    .filter(({ box }) => box.y > SCREENS * viewport.height)
    .map((picture) => ({ picture, bytes: findAnswer(picture.address, traffic)?.wire ?? 0 }))
    .filter(({ bytes }) => bytes > 0);
}

/** A file that several show comes once. */
function sum(deep: readonly Deep[]): number {
  const files = new Map(deep.map(({ picture, bytes }) => [picture.address, bytes]));
  return [...files.values()].reduce((total, one) => total + one, 0);
}
