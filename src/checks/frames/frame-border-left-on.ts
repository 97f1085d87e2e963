import {
  defineCheck,
  getCulpritKey,
  makeSeen,
  type Case,
  type Culprit,
  type Fact,
  type Seen,
  type MarkupFact,
} from '../../core/check.js';
import type { FrameFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { mendStyle } from '../../core/mend/width.js';
import { blameElement, getBlamed, SAMPLE_BLAME, type Blame } from '../../core/measure/blame.js';
import { TOLERANCE } from '../../core/measure/culprits.js';
import { formatPixels } from '../../core/measure/units.js';
import { isHidden } from '../../core/markup/hidden.js';
import { getValue, type Markup, type MarkupElement } from '../../core/markup/markup.js';
import { findDeclaration } from '../../core/markup/styles.js';
import { tell } from '../../core/tell.js';
import { formatWidths } from '../../core/words/list.js';

interface Data {
  blame: Blame;
  /** By how much the border makes the frame too wide, at the worst, px; 0 where it does not. */
  overhang: number;
}

type Measured = Record<'border' | 'overhang' | 'frameWidth', number>;

type Needs = 'frames' | 'slot';

const BORDER = /^border(-(top|right|bottom|left|block|inline)(-(start|end))?)?(-(style|width))?$/;
/** Frames of this size and less, without their border, are not there to be seen. */
const TINY = 2;

export default defineCheck({
  id: 'frame-border-left-on',
  subject: 'frames',
  level: 'advice',
  title: 'A frame has the border that browsers give it',
  decided:
    'The iframe is painted with the browser’s own inset border, which nothing in the snippet sets. A concern where the frame would fit its slot without it.',
  standard: 'HTML Living Standard, 15.4.1 Embedded content',
  needs: ['frames', 'slot'],
  markup: true,
  judge: judgeRenders,
  unrendered: ({ markup }) => tellBorders(markup),
  // Without the border it would fit: nothing is wrong with its width.
  explains: [
    {
      findings: ['slot-overflow', 'frame-wider-than-slot'],
      when: makesTooWide,
      heavier: true,
    },
  ],
  tooWide: makesTooWide,
  says({ overhang }, fact) {
    const by = formatPixels(overhang);
    const wide = fact.seen.filter(makesTooWide);
    return overhang > 0
      ? {
          message: `The browser’s own border makes the <iframe> up to ${by} wider than its slot ${formatWidths(wide)}.`,
          notice: 'The frame sticks out of its column by its border.',
          cure: 'Take the border off: `border: 0`.',
        }
      : {
          message: 'The <iframe> is painted with the browser’s own inset border.',
          notice: 'A grey, sunken edge runs round the frame.',
          cure: 'Take the border off: `border: 0`.',
        };
  },
  measures: ({ overhang, border }) =>
    overhang > 0
      ? `${formatPixels(border)} of border, ${formatPixels(overhang)} wider than the slot`
      : `${formatPixels(border)} of border`,
  mend: ({ blame }, _fact, markup) => mendStyle(markup, blame, { border: '0' }),
  samples: [{ overhang: 0, blame: SAMPLE_BLAME }],
  examples: {
    faulty: [
      {
        name: 'a map with its border on',
        code: '<iframe title="Map of the glasshouse" src="https://maps.fernmap.example/embed/glasshouse" width="120" height="90"></iframe>',
      },
      {
        name: 'as wide as the slot, and then the border',
        code: '<iframe title="Map of the glasshouse" src="https://maps.fernmap.example/embed/glasshouse" style="width: 100%; height: 200px"></iframe>',
      },
    ],
    sound: [
      {
        name: 'switched off',
        code: '<iframe title="Map of the glasshouse" src="https://maps.fernmap.example/embed/glasshouse" style="border: none; width: 100%; height: 200px"></iframe>',
      },
      {
        name: 'a border of its own',
        code: '<style>.map { border: 1px solid #3d5a73; box-sizing: border-box; width: 100%; height: 200px }</style><iframe class="map" title="Map of the glasshouse" src="https://maps.fernmap.example/embed/glasshouse"></iframe>',
      },
    ],
  },
});

function judgeRenders(c: Case<Needs>): Fact<Data, Measured>[] {
  const facts = flatMap(c.renders, (render) =>
    flatMap(render.frames, (frame): Fact<Data, Measured>[] => {
      const blame = blameElement(c.markup, frame);
      if (!isLeftOn(c.markup, frame, getBlamed(c.markup, blame))) return [];
      const overhang = getOverhang(frame, render.slot.box.width);
      const measured = { border: frame.border, overhang, frameWidth: frame.box.width };
      const seen = makeSeen(render, measured);
      return [tell.seen(blame, { blame, overhang }, seen)];
    }),
  );
  const worst = (culprit: Culprit) => {
    const key = getCulpritKey(culprit);
    const same = facts.filter((one) => getCulpritKey(one.culprit) === key);
    return Math.max(...same.map(({ data }) => data.overhang));
  };
  // At one width it makes the frame too wide, at another it does not: that is one finding.
  return facts.map((fact) => {
    const overhang = worst(fact.culprit);
    return {
      ...fact,
      level: overhang > 0 ? 'concern' : 'advice',
      data: { ...fact.data, overhang },
    };
  });
}

/** Whether the border alone makes a frame too wide there. */
function makesTooWide({ measured }: Seen<Measured>): boolean {
  return measured.overhang > 0;
}

/** Painted as the browser does it by itself. */
function isLeftOn(markup: Markup, frame: FrameFact, element: MarkupElement | null): boolean {
  const { tag, shown, border, box } = frame;
  const seen = tag === 'iframe' && shown && border > 0 && box.width - border > TINY;
  return seen && (element === null || !setsBorder(markup, element));
}

/** Only where without it the frame would fit. */
function getOverhang({ box, border }: FrameFact, room: number): number {
  const over = box.width - room;
  const only = room > 0 && over > TOLERANCE && over - border <= TOLERANCE;
  return only ? Math.round(over * 100) / 100 : 0;
}

function setsBorder(markup: Markup, element: MarkupElement): boolean {
  return findDeclaration(markup, element, BORDER) !== null;
}

function tellBorders(markup: Markup): MarkupFact<Data>[] {
  return markup.elements
    .filter(
      (element) =>
        element.name === 'iframe' &&
        getValue(element, 'frameborder')?.trim() !== '0' &&
        !/^no$/i.test(getValue(element, 'frameborder')?.trim() ?? '') &&
        !setsBorder(markup, element) &&
        !isHidden(markup, element),
    )
    .map((element) => {
      const blame = blameElement(markup, { from: { offset: element.offset }, selector: null });
      return tell.markup(blame, { blame, overhang: 0 });
    });
}
