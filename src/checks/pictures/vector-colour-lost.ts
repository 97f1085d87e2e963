import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import type { DrawingFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { listAround, type MarkupElement } from '../../core/markup/markup.js';
import { describeElement } from '../../core/markup/names.js';
import { blameElement, getBlamed } from '../../core/measure/blame.js';
import { getContrast } from '../../core/measure/contrast.js';
import { isDecoration, isLinkOrButton } from '../../core/standards/elements.js';
import { tell } from '../../core/tell.js';
import { getWorstSeen } from '../../core/words/list.js';

type Data = Record<never, never>;

type Measured = { colour: string; ground: string; contrast: number; missing: number };

/** WCAG 2.2, 1.4.11. */
const LEAST = 3;

export default defineCheck({
  id: 'vector-colour-lost',
  subject: 'pictures',
  level: 'concern',
  title: 'A drawing cannot be told from its ground',
  decided:
    'No colour of an svg that shows has a contrast of 3:1 with what is painted behind it, in a scheme that is looked at. Not of one that is marked as decoration, but for what is all of a link or a button; nor where the ground is a picture.',
  standard: 'WCAG 2.2, 1.4.11 Non-text Contrast',
  needs: ['drawings'],
  markup: false,
  judge: (c): Fact<Data, Measured>[] =>
    flatMap(c.renders, (render) =>
      flatMap(render.drawings, (drawing): Fact<Data, Measured>[] => {
        const blame = blameElement(c.markup, drawing);
        const best = getBest(drawing);
        if (!drawing.shown || !best || best.contrast >= LEAST) return [];
        if (!says(getBlamed(c.markup, blame))) return [];
        const seen = makeSeen(render, { ...best, missing: LEAST - best.contrast });
        return [tell.seen(blame, {}, seen)];
      }),
    ),
  says(_data, { seen }) {
    const worst = getWorstSeen(seen, 'missing')?.measured;
    return {
      message: worst
        ? `The drawing (${worst.colour}) has a contrast of ${format(worst.contrast)} with what is behind it (${worst.ground}); ${LEAST}:1 is the least.`
        : 'The drawing has hardly any contrast with what is behind it.',
      notice: 'Many people cannot make it out, or do not see that there is anything.',
      cure: 'Give it a colour that stands out there, or `currentColor`, which goes with the text around it.',
    };
  },
  measures: ({ colour, ground, contrast }) => `${colour} on ${ground}, ${format(contrast)}`,
  brief: (_data, { seen }) => {
    const worst = getWorstSeen(seen, 'missing')?.measured;
    return worst ? `a drawing at ${format(worst.contrast)}` : 'a drawing without contrast';
  },
  samples: [{}],
  examples: {
    faulty: [
      {
        name: 'white on white',
        code: '<p>Sow in May.</p><svg role="img" aria-label="A bean" width="40" height="40" viewBox="0 0 40 40"><circle r="9" cx="20" cy="20" fill="#fff" /></svg>',
      },
      {
        name: 'a pale arrow that is all of a link',
        code: '<a href="/beds" aria-label="All beds"><svg aria-hidden="true" width="40" height="40" viewBox="0 0 40 40"><path d="M8 8l24 12-24 12z" fill="#ddd" /></svg></a>',
      },
    ],
    sound: [
      {
        name: 'green on white',
        code: '<svg role="img" aria-label="A bean" width="40" height="40" viewBox="0 0 40 40"><circle r="9" cx="20" cy="20" fill="#246b35" /></svg>',
      },
      {
        name: 'white on a green disc',
        code: '<svg role="img" aria-label="A bean" width="40" height="40" viewBox="0 0 40 40"><circle r="19" cx="20" cy="20" fill="#246b35" /><circle r="9" cx="20" cy="20" fill="#fff" /></svg>',
      },
      {
        name: 'a pale ornament',
        code: '<p>Sow in May.</p><svg aria-hidden="true" width="40" height="40" viewBox="0 0 40 40"><circle r="9" cx="20" cy="20" fill="#eee" /></svg>',
      },
    ],
  },
});

/** The colour that stands out most. */
function getBest({ paints }: DrawingFact): Omit<Measured, 'missing'> | null {
  const all = paints.map((one) => ({ ...one, contrast: getContrast(one.colour, one.ground) }));
  return all.toSorted((a, b) => b.contrast - a.contrast)[0] ?? null;
}

/** It is no mere decoration: it says what it is, or is all of a link or a button. */
function says(element: MarkupElement | null): boolean {
  if (!element) return true;
  const control = listAround(element.parent).find((one) => isLinkOrButton(describeElement(one)));
  if (control) return getWords(control) === '';
  const all = [element, ...listAround(element.parent)];
  const hidden = ({ attributes }: MarkupElement) =>
    attributes.some(({ name, value }) => name === 'aria-hidden' && value.trim() === 'true');
  return !all.some(hidden) && !isDecoration(describeElement(element));
}

function getWords({ text, children }: MarkupElement): string {
  const inside = children.filter(({ name }) => name !== 'svg' && name !== 'style').map(getWords);
  return [text, ...inside].join('').trim();
}

function format(contrast: number): string {
  return `${Math.round(contrast * 10) / 10}:1`;
}
