import { defineCheck, makeSeen, type Fact, type Seen } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { blameElement } from '../../core/measure/blame.js';
import {
  findOneHeight,
  getNeeded,
  listFramed,
  atHeight,
  setHeight,
} from '../../core/measure/framed.js';
import { TOLERANCE } from '../../core/measure/culprits.js';
import { formatPixels } from '../../core/measure/units.js';
import { tell } from '../../core/tell.js';
import { formatWidths, getMost } from '../../core/words/list.js';

interface Data {
  /** It cannot be scrolled: what is cut off cannot be reached at all. */
  locked: boolean;
  /** A height that fits everywhere, px; null where there is none. */
  height: number | null;
}

type Measured = Record<'height' | 'needed' | 'hidden', number>;

export default defineCheck({
  id: 'frame-cuts-content',
  subject: 'frames',
  level: 'concern',
  title: 'A frame is too low for its document',
  decided:
    'The document in the frame is taller than the frame, by more than 1 px. Not players, which fill what they get.',
  standard: 'CSS Overflow 3; HTML Living Standard, 4.8.5 The iframe element',
  needs: ['frames'],
  markup: false,
  judge: ({ markup, renders }) =>
    flatMap(renders, (render) =>
      listFramed(render)
        .filter(({ inner }) => inner.scrollHeight > inner.height + TOLERANCE)
        .map((frame): Fact<Data, Measured> => {
          const blame = blameElement(markup, frame);
          const { height, scrollHeight } = frame.inner;
          const needed = Math.max(getNeeded(frame.inner), height + 1);
          const measured = { height, needed, hidden: scrollHeight - height };
          return tell.seen(
            atHeight(markup, blame),
            {
              locked: /^no$/i.test(frame.attributes.scrolling ?? ''),
              height: findOneHeight(renders, frame),
            },
            makeSeen(render, measured),
            { group: '' },
          );
        }),
    ),
  says({ locked }, { seen }) {
    const by = formatPixels(getMost(seen, 'hidden'));
    return {
      message: `The document in the frame is up to ${by} taller than the frame ${formatWidths(seen)}.`,
      notice: locked
        ? 'Its lower part is cut off, and nobody can scroll to it.'
        : 'It has a scroll bar of its own: readers scroll in a box, or miss what is below.',
      cure: sayHeights(seen),
    };
  },
  mend: ({ height }, { culprit }, markup) => setHeight(markup, culprit, height),
  measures: ({ height, needed }) =>
    `${formatPixels(height)} high, its document ${formatPixels(needed)}`,
  brief: (_data, { seen }) =>
    `a frame ${formatPixels(getMost(seen, 'hidden'))} too low for its document`,
  samples: [
    { locked: false, height: null },
    { locked: true, height: 420 },
  ],
  examples: {
    faulty: [
      {
        name: 'a form of two fields in a low frame',
        code: '<iframe title="Order seed" srcdoc="<p style=\'height: 400px\'>Seed, how many, to whom</p>" style="border: 0; width: 100%; height: 200px"></iframe>',
      },
    ],
    sound: [
      {
        name: 'room for all of it',
        code: '<iframe title="Order seed" srcdoc="<p style=\'height: 150px; margin: 0\'>Seed, how many, to whom</p>" style="border: 0; width: 100%; height: 200px"></iframe>',
      },
    ],
  },
});

/** The height that fits, for each width. */
function sayHeights(seen: readonly Seen<Measured>[]): string {
  const needed = new Map<number, Set<number>>();
  for (const { width, measured } of seen) {
    const px = Math.ceil(measured.needed);
    needed.set(px, (needed.get(px) ?? new Set()).add(width));
  }
  if (needed.size === 0) return 'Give it the height that its document needs.';
  const each = [...needed].sort(([a], [b]) => a - b);
  if (each.length === 1) return `Give it a height of ${formatPixels(each[0]![0])}.`;
  const heights = each.map(([px, widths]) => `${px} px at ${[...widths].join(' and ')} px`);
  return `Give it the height that its document needs: ${heights.join(', ')}.`;
}
