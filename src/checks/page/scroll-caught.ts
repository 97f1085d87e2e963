import { defineCheck, makeSeen, type Fact } from '../../core/check.js';
import type { HandlingFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { blameElement, getBlamed, type Blame } from '../../core/measure/blame.js';
import { formatPixels } from '../../core/measure/units.js';
import type { Markup } from '../../core/markup/markup.js';
import { findDeclaration } from '../../core/markup/styles.js';
import type { Span } from '../../core/snippet.js';
import { tell } from '../../core/tell.js';
import { capitalize, formatWidths, nameElement } from '../../core/words/list.js';

interface Data {
  tag: string;
  how: HandlingFact['caught'][number]['how'];
}

type Measured = Record<'height' | 'windowHeight', number>;

export default defineCheck({
  id: 'scroll-caught',
  subject: 'page',
  level: 'concern',
  title: 'A swipe on it does not move the page',
  decided:
    'At a window with touch a swipe begun on a part that is at least a quarter as high as the window does not move the page, up or down, and beside it no 44 px are left; or it is a scroller of over 80 % of the window’s height. A scroller that passes the swipe on at its end is sound. Tried in one window of each slot.',
  standard: 'Pointer Events Level 3, touch-action; CSS Overscroll Behavior 1',
  needs: ['handling'],
  markup: false,
  judge: ({ markup, renders }) =>
    flatMap(renders, (render) =>
      render.handling.caught.map((one): Fact<Data, Measured> => {
        const blame = blameElement(markup, one);
        const { tag, how } = one;
        return tell.seen(
          { ...blame, where: locate(markup, blame, how) },
          { tag, how },
          makeSeen(render, { height: one.box.height, windowHeight: render.viewport.height }),
          { group: '' },
        );
      }),
    ),
  says({ tag, how }, { seen, culprit }) {
    const name = capitalize(nameElement(tag, culprit));
    return {
      message:
        how === 'taken'
          ? `${name} takes swipes for itself: the page does not move (${formatWidths(seen)}).`
          : `${name} scrolls by itself and is nearly as high as the window (${formatWidths(seen)}).`,
      notice: 'On a phone readers get stuck there: they swipe, and the page stands still.',
      cure:
        how === 'taken'
          ? 'Leave swipes up and down to the page: `touch-action: pan-y`, or two fingers for what is inside; or make it narrower, so that 44 px are free beside it.'
          : 'Make it lower, so that there is page above and below it, or let it grow with its content.',
    };
  },
  measures: ({ height, windowHeight }) =>
    `${formatPixels(height)} high in a window of ${formatPixels(windowHeight)}`,
  brief: ({ tag }) => `swipes end on the <${tag}>`,
  samples: [
    { tag: 'iframe', how: 'taken' },
    { tag: 'div', how: 'scrolls' },
  ],
  examples: {
    faulty: [
      {
        name: 'a map of one’s own that takes all touches',
        code: '<div style="height: 400px; background: #e8e2d2; touch-action: none">Beds</div>',
      },
    ],
    sound: [
      {
        name: 'a map that leaves swipes up and down to the page',
        code: '<div style="height: 400px; background: #e8e2d2; touch-action: pan-y">Beds</div>',
      },
      {
        name: 'a list that scrolls, and passes on at its end',
        code: '<div tabindex="0" style="height: 300px; overflow: auto"><p style="height: 900px">Beans</p></div>',
      },
    ],
  },
});

/** What takes them, where styles do. */
function locate(markup: Markup, blame: Blame, how: Data['how']): Span {
  const element = getBlamed(markup, blame);
  const properties =
    how === 'taken' ? ['touch-action', 'overscroll-behavior'] : ['height', 'max-height'];
  const found = element && findDeclaration(markup, element, properties);
  return found ? { offset: found.offset, endOffset: found.endOffset } : blame.where;
}
