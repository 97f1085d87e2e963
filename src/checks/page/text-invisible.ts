import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { blameElement, getBlamed } from '../../core/measure/blame.js';
import {
  formatContrast,
  locateColour,
  readContrast,
  type PaintedText,
} from '../../core/measure/texts.js';
import { listAround, type MarkupElement } from '../../core/markup/markup.js';
import { formatWidths, shorten } from '../../core/words/list.js';

interface Data extends PaintedText {
  /** What it is the words of; null for plain text. */
  of: 'link' | 'button' | 'heading' | null;
}

/** Below it nobody sees letters. */
const LEAST = 1.5;

export default defineCheck({
  id: 'text-invisible',
  subject: 'page',
  level: 'blocker',
  title: 'Words that nobody can see',
  decided:
    'Text has the colour of what is behind it, both as painted, or none at all: their contrast is under 1.5:1. A concern where it is no link, button or heading. Not of controls that are not in use, nor where text and ground are wholly the page’s own.',
  standard: 'WCAG 2.2, 1.4.3 Contrast (Minimum)',
  needs: ['texts'],
  markup: false,
  published: true,
  explains: [{ findings: ['text-contrast-low'] }],
  judge: ({ markup, renders }) =>
    flatMap(renders, (render) =>
      flatMap(render.texts, (text): Fact<Data>[] => {
        const painted = readContrast(text);
        // Of what stands on a picture some of it may be seen.
        if (painted === null || painted.contrast >= LEAST || text.area !== null) return [];
        const { contrast, colour, ground } = painted;
        const blame = blameElement(markup, text);
        const of = getKind(getBlamed(markup, blame), text.tag);
        return [
          {
            where: locateColour(markup, blame),
            culprit: blame.culprit,
            level: of ? 'blocker' : 'concern',
            data: { ...painted, of },
            seen: [makeSeen(render, { contrast, colour, ground })],
          },
        ];
      }),
    ),
  says: ({ sample, colour, ground, of }, { seen }) => ({
    message: `The ${of ?? 'text'} “${shorten(sample, 30)}” cannot be seen: ${colour} on ${ground} (${formatWidths(seen)}).`,
    notice: of
      ? 'Visitors find an empty place where they should read or press something.'
      : 'Visitors miss these words.',
    cure: 'Give the text a colour that stands out from what is behind it.',
  }),
  measures: formatContrast,
  brief: ({ of }) => `${of === null ? 'text' : `a ${of}`} that cannot be seen`,
  samples: [
    { sample: 'Sow', colour: '#ffffff', ground: '#ffffff', contrast: 1, of: null },
    { sample: 'Join', colour: '#ffffff', ground: '#ffffff', contrast: 1, of: 'button' },
  ],
  examples: {
    faulty: [
      {
        name: 'white on white',
        code: '<div style="background: #fff; color: #222"><p>Sow in May.</p><p style="color: #fff">Water in June.</p></div>',
      },
      {
        name: 'a button without a ground',
        code: '<button type="button" style="background: #fff; color: #fdfdfd; border: 0">Join the swap</button>',
      },
    ],
    sound: [
      {
        name: 'white on green',
        code: '<p style="background: #1b4332; color: #fff">Sow in May.</p>',
      },
      {
        name: 'for screen readers alone',
        code: '<p style="color: #222; background: #fff">Sow in May.<span style="position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); color: #fff">, says the desk</span></p>',
      },
    ],
  },
});

const HEADING = /^h[1-6]$/;

function getKind(element: MarkupElement | null, tag: string): Data['of'] {
  for (const name of [tag, ...listAround(element).map((one) => one.name)]) {
    if (name === 'a') return 'link';
    if (name === 'button') return 'button';
    if (HEADING.test(name)) return 'heading';
  }
  return null;
}
