import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { blameElement } from '../../core/measure/blame.js';
import {
  findOneHeight,
  getNeeded,
  isMostlyEmpty,
  listFramed,
  atHeight,
  setHeight,
  type Framed,
} from '../../core/measure/framed.js';
import { formatPixels } from '../../core/measure/units.js';
import { tell } from '../../core/tell.js';
import { formatWidths, getMost } from '../../core/words/list.js';

interface Data {
  /** The most that its document fills, at any width, px. */
  needed: number;
  /** A height that fits everywhere, px; null where there is none. */
  height: number | null;
}

type Measured = Record<'height' | 'filled' | 'empty', number>;

export default defineCheck({
  id: 'frame-mostly-empty',
  subject: 'frames',
  level: 'advice',
  title: 'A frame is much taller than its document',
  decided:
    'What stands in the frame’s document fills less than two thirds of its height, at every width. Not players, nor documents of which nothing is seen.',
  standard: null,
  needs: ['frames'],
  markup: false,
  judge({ markup, renders }): Fact<Data, Measured>[] {
    const sighted = flatMap(renders, (render) =>
      listFramed(render).map((frame) => ({ render, frame, key: JSON.stringify(frame.from) })),
    );
    return flatMap(new Set(sighted.map(({ key }) => key)), (key) => {
      const all = sighted.filter((one) => one.key === key);
      if (!all.every(({ frame }) => leavesMuch(frame.inner))) return [];
      const [{ frame }] = all as [(typeof all)[number]];
      const blame = blameElement(markup, frame);
      const needed = Math.max(...all.map((one) => getNeeded(one.frame.inner)));
      return [
        tell.seen(
          atHeight(markup, blame),
          { needed, height: findOneHeight(renders, frame) },
          all.map((one) => {
            const { height } = one.frame.inner;
            const filled = getNeeded(one.frame.inner);
            return makeSeen(one.render, { height, filled, empty: height - filled });
          }),
        ),
      ];
    });
  },
  says({ needed }, { seen }) {
    const empty = formatPixels(getMost(seen, 'empty'));
    return {
      message: `Up to ${empty} of the frame stay empty below its document (${formatWidths(seen)}).`,
      notice: 'There is a gap in the page before what comes next.',
      cure: `Give it a height of ${formatPixels(Math.ceil(needed))}.`,
    };
  },
  mend: ({ height }, { culprit }, markup) => setHeight(markup, culprit, height),
  measures: ({ height, filled }) =>
    `${formatPixels(height)} high, its content ${formatPixels(filled)}`,
  brief: (_data, { seen }) =>
    `a frame with ${formatPixels(getMost(seen, 'empty'))} of nothing below its document`,
  samples: [{ needed: 120, height: 120 }],
  examples: {
    faulty: [
      {
        name: 'a line of text in a tall frame',
        code: '<iframe title="Opening hours" srcdoc="<p>Open on weekdays from ten to four.</p>" style="border: 0; width: 100%; height: 600px"></iframe>',
      },
    ],
    sound: [
      {
        name: 'a frame as tall as its document',
        code: '<iframe title="Opening hours" srcdoc="<p style=\'margin: 0; height: 180px\'>Open on weekdays.</p>" style="border: 0; width: 100%; height: 200px"></iframe>',
      },
      {
        name: 'a document that fills what it gets',
        code: '<iframe title="Map of beds" srcdoc="<style>html, body { height: 100%; margin: 0; background: #eee }</style><p style=\'margin: 0\'>Beds</p>" style="border: 0; width: 100%; height: 400px"></iframe>',
      },
    ],
  },
});

function leavesMuch(inner: Framed['inner']): boolean {
  // What fills whatever it gets leaves nothing empty.
  if (inner.natural === null) return false;
  const needed = getNeeded(inner);
  return needed > 0 && isMostlyEmpty(inner.height, needed);
}
