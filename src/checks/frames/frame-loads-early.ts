import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { getBlamed } from '../../core/measure/blame.js';
import { getDepth, listSeenFrames, tellLoading } from '../../core/measure/first-screen.js';
import { formatPixels } from '../../core/measure/units.js';
import { getElementKey } from '../../core/search/spans.js';

type Data = Record<never, never>;

type Measured = { below: number };

/** A page whose slot is below the first screen. */
const PAGE =
  '<!doctype html><html lang="en"><title>Seeds</title><p style="height: 1200px">Spring</p><div data-mivket-slot="column"></div>';

export default defineCheck({
  id: 'frame-loads-early',
  subject: 'frames',
  level: 'advice',
  title: 'A frame far down the page is loaded at once',
  decided:
    'On the house’s own page it begins below the first screen in every window, and has no `loading="lazy"`. Not told without a page of the house’s own.',
  standard: 'HTML Living Standard, 2.4.6 Lazy loading attributes',
  needs: ['frames'],
  markup: false,
  judge({ markup, house, renders }): Fact<Data, Measured>[] {
    if (house.page === undefined) return [];
    const all = flatMap(renders, (render) =>
      listSeenFrames(render)
        // What is written on the tag itself is not fetched.
        .filter(({ attributes }) => attributes.srcdoc === undefined)
        .map((frame) => ({ render, frame, depth: getDepth(render, frame) })),
    );
    const high = new Set(
      all.filter(({ depth }) => depth < 0).map(({ frame }) => getElementKey(frame)),
    );
    return all
      .filter(({ frame }) => !frame.lazy && !high.has(getElementKey(frame)))
      .map(({ render, frame, depth }) =>
        tellLoading(markup, frame, makeSeen(render, { below: depth })),
      );
  },
  says: (_data, { seen }) => {
    const least = Math.min(...seen.map(({ measured }) => measured.below), Infinity);
    const far = Number.isFinite(least) ? `${formatPixels(least)} and more` : 'well';
    return {
      message: `The frame begins ${far} below the first screen, and is loaded at once.`,
      notice: 'What visitors do see comes later, for the sake of what few scroll to.',
      cure: 'Let it wait until somebody comes near: `loading="lazy"`.',
    };
  },
  mend(_data, { culprit }, markup) {
    const element = getBlamed(markup, { culprit });
    if (!element) return null;
    return [{ do: 'set-attribute', element: element.offset, name: 'loading', value: 'lazy' }];
  },
  measures: ({ below }) => `begins ${formatPixels(below)} below the first screen`,
  samples: [{}],
  examples: {
    faulty: [
      {
        name: 'a map under a long text',
        code: '<iframe title="Map of beds" src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 100%; height: 300px"></iframe>',
        under: { page: PAGE },
      },
    ],
    sound: [
      {
        name: 'the same map, which waits',
        code: '<iframe title="Map of beds" loading="lazy" src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 100%; height: 300px"></iframe>',
        under: { page: PAGE },
      },
      {
        name: 'where the page is not known',
        code: '<p style="height: 1600px">Spring</p><iframe title="Map of beds" src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 100%; height: 300px"></iframe>',
      },
    ],
  },
});
