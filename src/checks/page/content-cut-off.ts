import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import type { CutFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { blameElement, getBlamed, type Blame } from '../../core/measure/blame.js';
import { formatPixels } from '../../core/measure/units.js';
import type { Markup } from '../../core/markup/markup.js';
import { findDeclaration } from '../../core/markup/styles.js';
import { getTraits } from '../../core/markup/traits.js';
import type { Span } from '../../core/snippet.js';
import { tell } from '../../core/tell.js';
import { formatWidths, nameElement, shorten, getMost } from '../../core/words/list.js';

interface Data {
  /** What is cut off, in words. */
  what: string;
  axis: 'x' | 'y';
  by: CutFact['by'];
  /** The tag of what clips. */
  tag: string;
}

type Measured = { outside: number; whole: boolean };

export default defineCheck({
  id: 'content-cut-off',
  subject: 'page',
  level: 'concern',
  title: 'Something is cut off where nobody can scroll to it',
  decided:
    'A line of text, or over half of a picture or control, lies outside a box with `overflow: hidden` or `clip`, or beyond the window where the page does not scroll. Not what ends in an ellipsis, is there for assistive technology only, or is moved in by a transition, an animation or a script.',
  standard: 'CSS Overflow 3, 3.1; WCAG 2.2, 1.4.4 Resize Text',
  needs: ['cuts'],
  markup: false,
  judge({ markup, renders }): Fact<Data, Measured>[] {
    const { changes } = getTraits(markup);
    return flatMap(renders, (render) =>
      // A script may bring in what is wholly out of sight.
      render.cuts
        .filter(({ whole }) => !(whole && changes))
        .map((cut): Fact<Data, Measured> => {
          const blame = blameElement(markup, cut.clipper ?? cut);
          return tell.seen(
            { ...blame, where: cut.clipper ? locate(markup, blame, cut.axis) : blame.where },
            {
              what: describeCut(cut),
              axis: cut.axis,
              by: cut.by,
              tag: cut.clipper?.tag ?? cut.tag,
            },
            makeSeen(render, { outside: cut.outside, whole: cut.whole }),
            { group: cut.axis },
          );
        }),
    );
  },
  // Whose edge it passes is told by this.
  explains: [
    {
      findings: ['slot-overflow'],
      when: (_seen, { by }) => by === 'window',
      fits: (_other, { by, axis }) => by === 'window' && axis === 'x',
    },
  ],
  says({ what, axis, by, tag }, { seen, culprit }) {
    const most = formatPixels(getMost(seen, 'outside'));
    const edge = by === 'own' ? `the edge of ${nameElement(tag, culprit)}` : EDGES[by];
    return {
      message: `${what} reaches up to ${most} beyond ${edge} and is cut off there (${formatWidths(seen)}).`,
      notice: 'Part of it cannot be seen, and nobody can scroll to it.',
      cure: CURES[by][axis],
    };
  },
  measures: ({ outside, whole }) =>
    `${formatPixels(outside)} beyond the edge${whole ? ', all of it' : ''}`,
  brief: ({ what }) => `${what.replace(/^T/, 't').replace(/^A/, 'a')} cut off`,
  samples: [
    { what: 'The text “Sow thinly”', axis: 'y', by: 'own', tag: 'div' },
    { what: 'The text “Sow thinly”', axis: 'x', by: 'own', tag: 'div' },
    { what: 'A picture', axis: 'x', by: 'window', tag: 'img' },
    { what: 'A picture', axis: 'y', by: 'page', tag: 'img' },
  ],
  examples: {
    faulty: [
      {
        name: 'more text than the box is high',
        code: '<div style="height: 40px; overflow: hidden"><p style="margin: 0">Sow thinly in rows a hand apart, water well, and wait for three weeks. Then take out every second seedling, and wait for three more.</p><p>Water again.</p></div>',
      },
    ],
    sound: [
      {
        name: 'a box that scrolls',
        code: '<div tabindex="0" style="height: 40px; overflow: auto"><p style="margin: 0">Sow thinly in rows a hand apart, water well, and wait for three weeks.</p><p>Water again.</p></div>',
      },
      {
        name: 'a line that ends in an ellipsis',
        code: '<p style="overflow: hidden; white-space: nowrap; text-overflow: ellipsis">Sow thinly in rows a hand apart, water well, and wait for three weeks. Then take out every second seedling.</p>',
      },
    ],
  },
});

const EDGES: Record<'page' | 'window', string> = {
  page: 'the edge of the place on the page that it stands in',
  window: 'the edge of the window',
};

const CURES: Record<CutFact['by'], Record<CutFact['axis'], string>> = {
  own: {
    y: 'Let the box grow with its content: `min-height` in place of `height`; or let it scroll: `overflow: auto`.',
    x: 'Let the content wrap and shrink with the box; or let it scroll: `overflow-x: auto`.',
  },
  page: {
    y: 'Make it fit into the height that the page gives it.',
    x: 'Make it fit into the width that the page gives it.',
  },
  window: {
    y: 'Let the page scroll, or make it fit into the window: `max-height: 100%`.',
    x: 'Make it fit into the window: `max-width: 100%`.',
  },
};

function describeCut({ what, sample, tag }: CutFact): string {
  if (what === 'text') return `The text “${shorten(sample, 30)}”`;
  return `The <${tag}>`;
}

const PROPERTIES: Record<CutFact['axis'], readonly string[]> = {
  y: ['height', 'max-height', 'block-size', 'max-block-size', 'overflow', 'overflow-y'],
  x: ['overflow', 'overflow-x', 'contain', 'width', 'max-width'],
};

/** What bounds the box, the height before the clipping: that is what can be let go. */
function locate(markup: Markup, blame: Blame, axis: CutFact['axis']): Span {
  const element = getBlamed(markup, blame);
  for (const property of PROPERTIES[axis]) {
    const found = element && findDeclaration(markup, element, [property]);
    if (found) return { offset: found.offset, endOffset: found.endOffset };
  }
  return blame.where;
}
