import { defineCheck, makeSeen, type Case, type Fact } from '../../core/check.js';
import type { FrameFact } from '../../core/evidence.js';
import { blameElement, getBlamed } from '../../core/measure/blame.js';
import { isFramedPlayer } from '../../core/measure/framed.js';
import { formatPixels } from '../../core/measure/units.js';
import {
  getAttribute,
  getTagSpan,
  getValue,
  type Markup,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { findDeclaration } from '../../core/markup/styles.js';
import type { Span } from '../../core/snippet.js';
import { formatWidths, getWorstSeen } from '../../core/words/list.js';

interface Data {
  /** As written; null where no height is stated. */
  written: string | null;
  player: boolean;
}

/** The height of a frame for which none is stated, px (CSS 2.2, 10.6.2). */
const DEFAULT = 150;
const BORDER = 4;

export default defineCheck({
  id: 'frame-height-collapsed',
  subject: 'frames',
  level: 'concern',
  title: 'A frame’s height collapses',
  decided:
    'Its height is a percentage, or none is stated, and it comes out as the default of 150 px or less. Not where no height is stated and its document fits.',
  standard: 'CSS 2.2, 10.5 and 10.6.2',
  needs: ['frames'],
  markup: false,
  judge: (c) =>
    c.renders.flatMap((render) => render.frames.flatMap((frame) => judgeFrame(c, render, frame))),
  says({ written, player }, { seen }) {
    const high = formatPixels(Number(getWorstSeen(seen, 'height')?.measured.height ?? DEFAULT));
    return {
      message: written
        ? `\`${written}\` comes to nothing here: the frame is ${high} high (${formatWidths(seen)}).`
        : `No height is stated: the frame is ${high} high (${formatWidths(seen)}).`,
      notice: 'Only a strip of its document is to be seen.',
      cure: player
        ? 'Let it keep its shape: `width: 100%; height: auto; aspect-ratio: 16 / 9`.'
        : 'State the height that its document needs, in px.',
    };
  },
  measures: ({ height }) => `${formatPixels(Number(height))} high`,
  brief: (_data, { seen }) =>
    `a frame only ${formatPixels(Number(getWorstSeen(seen, 'height')?.measured.height))} high`,
  samples: [
    { written: 'height: 100%', player: false },
    { written: null, player: true },
  ],
  examples: {
    faulty: [
      {
        name: 'as high as something without a height',
        code: '<iframe title="Map of beds" src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 100%; height: 100%"></iframe>',
      },
    ],
    sound: [
      {
        name: 'as high as something that has one',
        code: '<div style="height: 300px"><iframe title="Map of beds" src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 100%; height: 100%"></iframe></div>',
      },
      {
        name: 'low on purpose',
        code: '<iframe title="Opening hours" srcdoc="<p style=\'margin: 0; height: 60px\'>Open on weekdays.</p>" style="border: 0; width: 100%; height: 80px"></iframe>',
      },
    ],
  },
});

function judgeFrame(
  { markup }: Case<'frames'>,
  render: Case<'frames'>['renders'][number],
  frame: FrameFact,
): Fact<Data>[] {
  const { box, shown, inner } = frame;
  const blame = blameElement(markup, frame);
  const element = getBlamed(markup, blame);
  const shows = ['src', 'srcdoc', 'data'].some((name) => frame.attributes[name] !== undefined);
  if (!element || !shown || !shows || box.height <= BORDER || box.height > DEFAULT + BORDER)
    return [];
  const stated = findHeight(markup, element, render.viewport.width);
  if (stated !== null && !stated.percent) return [];
  const fits = inner && inner.scrollHeight <= inner.height + 1;
  if (stated === null && (fits || Math.abs(box.height - DEFAULT) > BORDER)) return [];
  const where = stated?.span ?? getTagSpan(element);
  const written = stated && markup.text.slice(where.offset, where.endOffset);
  return [
    {
      where,
      culprit: blame.culprit,
      group: '',
      confirmed: true,
      data: { written, player: isFramedPlayer(frame) },
      seen: [makeSeen(render, { height: box.height })],
    },
  ];
}

/** What states a frame's height, at a width of the window; null where nothing does. */
function findHeight(
  markup: Markup,
  element: MarkupElement,
  width: number,
): { span: Span; percent: boolean } | null {
  const declared = findDeclaration(
    markup,
    element,
    /^((min|max)-)?height$|^aspect-ratio$|^position$|^inset/,
    width,
  );
  if (declared && declared.property !== 'height') return { span: declared, percent: false };
  const attribute = getAttribute(element, 'height');
  const stated = declared ?? attribute;
  if (!stated || declared?.value === 'auto') return null;
  const { offset, endOffset } = stated;
  const value = declared?.value ?? getValue(element, 'height') ?? '';
  return { span: { offset, endOffset }, percent: /^\s*[\d.]+%\s*$/.test(value) };
}
