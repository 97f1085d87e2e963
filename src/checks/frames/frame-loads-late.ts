import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { getBlamed } from '../../core/measure/blame.js';
import { getDepth, listSeenFrames, tellLoading } from '../../core/measure/first-screen.js';
import { formatPixels } from '../../core/measure/units.js';
import { formatWidths } from '../../core/words/list.js';

type Data = Record<never, never>;

type Measured = { above: number };

/** A page whose slot begins in the first screen. */
const PAGE =
  '<!doctype html><html lang="en"><title>Seeds</title><p>Spring</p><div data-mivket-slot="column"></div>';

export default defineCheck({
  id: 'frame-loads-late',
  subject: 'frames',
  level: 'advice',
  title: 'A frame in the first screen waits to be scrolled to',
  decided:
    'On the house’s own page it begins in the first screen, and has `loading="lazy"`. Not told without a page of the house’s own.',
  standard: 'HTML Living Standard, 2.4.6 Lazy loading attributes',
  needs: ['frames'],
  markup: false,
  judge({ markup, house, renders }): Fact<Data, Measured>[] {
    if (house.page === undefined) return [];
    return flatMap(renders, (render) =>
      listSeenFrames(render)
        .filter((frame) => frame.lazy && getDepth(render, frame) < 0)
        .map((frame) =>
          tellLoading(markup, frame, makeSeen(render, { above: -getDepth(render, frame) })),
        ),
    );
  },
  says: (_data, { seen }) => ({
    message: `The frame is in the first screen (${formatWidths(seen)}), and yet waits to be scrolled to.`,
    notice: 'Visitors look at an empty place: the browser asks for it only once all is laid out.',
    cure: 'Take `loading="lazy"` out.',
  }),
  mend(_data, { culprit }, markup) {
    const element = getBlamed(markup, { culprit });
    if (!element) return null;
    return [{ do: 'remove-attribute', element: element.offset, name: 'loading' }];
  },
  measures: ({ above }) => `begins ${formatPixels(above)} above the end of the first screen`,
  samples: [{}],
  examples: {
    faulty: [
      {
        name: 'a map at the top that waits',
        code: '<iframe title="Map of beds" loading="lazy" src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 100%; height: 300px"></iframe>',
        under: { page: PAGE },
      },
    ],
    sound: [
      {
        name: 'the same map, loaded at once',
        code: '<iframe title="Map of beds" src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 100%; height: 300px"></iframe>',
        under: { page: PAGE },
      },
      {
        name: 'a map under a long text that waits',
        code: '<p style="height: 1200px">Spring</p><iframe title="Map of beds" loading="lazy" src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 100%; height: 300px"></iframe>',
        under: { page: PAGE },
      },
    ],
  },
});
