import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import type { TextFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { blameElement, getBlamed } from '../../core/measure/blame.js';
import {
  formatContrast,
  locateColour,
  readContrast,
  type PaintedText,
} from '../../core/measure/texts.js';
import { listAround, type MarkupElement } from '../../core/markup/markup.js';
import { tell } from '../../core/tell.js';
import { formatWidths, shorten } from '../../core/words/list.js';

interface Data {
  sample: string;
  /** What it is the words of; null for plain text. */
  of: 'link' | 'button' | 'heading' | null;
  /** What its letters are painted with, and on; null where none of it is painted at all. */
  painted: PaintedText | null;
}

/** Below it nobody sees letters. */
const LEAST = 1.5;

const WHITE: PaintedText = { sample: 'Sow', colour: '#ffffff', ground: '#ffffff', contrast: 1 };

export default defineCheck({
  id: 'text-invisible',
  subject: 'page',
  level: 'blocker',
  title: 'Words that nobody can see',
  decided:
    'Text has the colour of what is behind it, both as painted: their contrast is under 1.5:1; or nothing is painted in its place, neither where it stands at first nor once it is scrolled to: it lies under something empty, or is clipped, masked or moved away. A concern where nothing is painted in its place and it is no link, button or heading. Not of controls that are not in use, nor where text and ground are wholly the page’s own, nor under something with content of its own.',
  standard: 'WCAG 2.2, 1.4.3 Contrast (Minimum)',
  needs: ['texts', 'paint'],
  markup: false,
  published: true,
  explains: [{ findings: ['text-contrast-low'] }],
  judge: ({ markup, renders }) =>
    flatMap(renders, (render) =>
      flatMap(render.texts, (text): Fact<Data, Measured>[] => {
        const painted = readPale(text);
        const isUnseen = render.paint.unseen.includes(text.id);
        if (!painted && !isUnseen) return [];
        const blame = blameElement(markup, text);
        const of = getKind(getBlamed(markup, blame), text.tag);
        const { sample } = text;
        return [
          tell.seen(
            {
              ...blame,
              where: painted ? locateColour(markup, blame, painted.colour) : blame.where,
            },
            { sample, of, painted },
            makeSeen(render, painted ? measure(painted) : { contrast: null }),
            { level: of || painted ? 'blocker' : 'concern' },
          ),
        ];
      }),
    ),
  says: ({ sample, of, painted }, { seen }) => {
    const words = `The ${of ?? 'text'} “${shorten(sample, 30)}”`;
    const widths = formatWidths(seen);
    return {
      message: painted
        ? `${words} cannot be seen: ${painted.colour} on ${painted.ground} (${widths}).`
        : `${words} cannot be seen: nothing is painted in its place (${widths}).`,
      notice: of
        ? 'Visitors find an empty place where they should read or press something.'
        : 'Visitors miss these words.',
      cure: painted
        ? 'Give the text a colour that stands out from what is behind it.'
        : 'See what lies over it, clips it or masks it.',
    };
  },
  measures: (measured) => ('colour' in measured ? formatContrast(measured) : 'nothing is painted'),
  brief: ({ of }) => `${of === null ? 'text' : `a ${of}`} that cannot be seen`,
  samples: [
    { sample: 'Sow', of: null, painted: WHITE },
    { sample: 'Join', of: 'button', painted: WHITE },
    { sample: 'Sow', of: null, painted: null },
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
      {
        name: 'under an empty layer of its own',
        code: '<p>Sow in May.</p><div style="position: relative; background: #fff; color: #222"><p>Water in June.</p><div style="position: absolute; inset: 0; background: #fff"></div></div>',
      },
    ],
    sound: [
      {
        name: 'white on green',
        code: '<p style="background: #1b4332; color: #fff">Sow in May.</p>',
      },
      {
        name: 'a picture of slides, one over the other',
        code: '<div style="position: relative; height: 80px"><p style="position: absolute; inset: 0; margin: 0; background: #fff">Sow in May.</p><p style="position: absolute; inset: 0; margin: 0; padding-left: 120px; background: #fff">Water in June.</p></div>',
      },
      {
        name: 'for screen readers alone',
        code: '<p style="color: #222; background: #fff">Sow in May.<span style="position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); color: #fff">, says the desk</span></p>',
      },
    ],
  },
});

/** With letters that nobody can tell from what is behind them. Of what stands on a picture some may be seen. */
function readPale(text: TextFact): PaintedText | null {
  const painted = text.area === null ? readContrast(text) : null;
  return painted !== null && painted.contrast < LEAST ? painted : null;
}

/** `contrast` is null where nothing is painted. */
type Measured = Pick<PaintedText, 'contrast' | 'colour' | 'ground'> | { contrast: null };

function measure({ contrast, colour, ground }: PaintedText): Measured {
  return { contrast, colour, ground };
}

const HEADING = /^h[1-6]$/;

function getKind(element: MarkupElement | null, tag: string): Data['of'] {
  for (const name of [tag, ...listAround(element).map((one) => one.name)]) {
    if (name === 'a') return 'link';
    if (name === 'button') return 'button';
    if (HEADING.test(name)) return 'heading';
  }
  return null;
}
