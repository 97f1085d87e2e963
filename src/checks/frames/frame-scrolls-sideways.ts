import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { blameElement } from '../../core/measure/blame.js';
import { TOLERANCE } from '../../core/measure/culprits.js';
import { listFramed } from '../../core/measure/framed.js';
import { formatPixels } from '../../core/measure/units.js';
import { tell } from '../../core/tell.js';
import { formatWidths, getMost } from '../../core/words/list.js';

interface Data {
  /** The frame's own document stands in the snippet. */
  own: boolean;
}

type Measured = Record<'width' | 'needed' | 'overhang', number>;

export default defineCheck({
  id: 'frame-scrolls-sideways',
  subject: 'frames',
  level: 'concern',
  title: 'The document in a frame scrolls sideways',
  decided:
    'The document in the frame is wider than the frame, by more than 1 px. Not players, which fill what they get.',
  standard: 'WCAG 2.2, 1.4.10 Reflow',
  needs: ['frames'],
  markup: false,
  judge: ({ markup, renders }) =>
    flatMap(renders, (render) =>
      listFramed(render)
        .filter(({ inner }) => inner.scrollWidth > inner.width + TOLERANCE)
        .map((frame): Fact<Data, Measured> => {
          const { width, scrollWidth } = frame.inner;
          const measured = { width, needed: scrollWidth, overhang: scrollWidth - width };
          return tell.seen(
            blameElement(markup, frame),
            { own: frame.attributes.srcdoc !== undefined },
            makeSeen(render, measured),
            { group: '' },
          );
        }),
    ),
  says({ own }, { seen }) {
    const by = formatPixels(getMost(seen, 'overhang'));
    return {
      message: `The document in the frame is up to ${by} wider than the frame ${formatWidths(seen)}.`,
      notice: 'Readers have to scroll sideways inside the frame to see all of it.',
      cure: own
        ? 'Let what stands in its srcdoc shrink with its room.'
        : 'Ask whoever makes its document for one that shrinks with its room, or link to it instead.',
    };
  },
  measures: ({ width, needed }) =>
    `${formatPixels(width)} wide, its document ${formatPixels(needed)}`,
  brief: (_data, { seen }) =>
    `a frame whose document is ${formatPixels(getMost(seen, 'overhang'))} wider`,
  samples: [{ own: false }, { own: true }],
  examples: {
    faulty: [
      {
        name: 'a wide table in a frame',
        code: '<iframe title="Seed list" srcdoc="<p style=\'width: 1400px; height: 50px; margin: 0\'>Bean, pea, leek</p>" style="border: 0; width: 100%; height: 70px"></iframe>',
      },
    ],
    sound: [
      {
        name: 'a document that shrinks',
        code: '<iframe title="Seed list" srcdoc="<p style=\'max-width: 1400px; height: 50px; margin: 0\'>Bean, pea, leek</p>" style="border: 0; width: 100%; height: 70px"></iframe>',
      },
    ],
  },
});
