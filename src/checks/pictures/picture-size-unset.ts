import { defineCheck, type Fact, type MarkupFact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { getValue, type MarkupElement } from '../../core/markup/markup.js';
import { isHidden } from '../../core/markup/hidden.js';
import { atTag, getBlamed } from '../../core/measure/blame.js';
import {
  describePush,
  formatMostPushed,
  isPushing,
  tellPushing,
  type Pushes,
  type Pushing,
} from '../../core/measure/pushes.js';
import type { Intent } from '../../core/mend/intent.js';
import { stateSize } from '../../core/mend/size.js';
import { tell } from '../../core/tell.js';

export default defineCheck({
  id: 'picture-size-unset',
  subject: 'pictures',
  level: 'concern',
  title: 'No room is kept for a picture until it comes',
  decided:
    'An img has neither a height nor a proportion before its file comes, and what stands below it moves down by over 24 px when it does: that is tried. From the markup: neither width and height nor a style. Not what stands in the address itself.',
  standard: 'HTML Living Standard, 4.8.16 Dimension attributes',
  needs: ['pictures'],
  markup: true,
  judge: (c): Fact<Pushing, Pushes>[] =>
    flatMap(c.renders, (render) =>
      render.pictures
        .filter((one) => isPushing(one) && /^https?:/.test(one.address))
        .map((one) => tellPushing(c.markup, render, one)),
    ),
  unrendered: ({ markup }) =>
    markup.elements
      .filter((one) => one.name === 'img' && hasNoSize(one) && !isHidden(markup, one))
      .map((one): MarkupFact<Pushing> => tell.markup(atTag(one), { size: null })),
  says: (_data, { seen }) => ({
    message:
      seen.length > 0
        ? `Nothing says how large the picture is: when it comes, what stands below it moves down by ${formatMostPushed(seen)}.`
        : 'Nothing says how large the picture is before it comes.',
    notice: 'What visitors read or are about to press moves away under them.',
    cure: 'Say its size by `width` and `height`, with `height: auto` where it may get narrower.',
  }),
  mend({ size }, { culprit }, markup): Intent[] | null {
    const element = getBlamed(markup, { culprit });
    const parent = element?.parent;
    const isChosen = element && getValue(element, 'srcset') !== null;
    if (!element || !size || isChosen || parent?.name === 'picture') return null;
    return stateSize(element, size);
  },
  measures: describePush,
  samples: [{ size: null }],
  examples: {
    faulty: [
      {
        name: 'a picture that says nothing of its size',
        code: '<img src="https://static.rootcellar.example/beans.png" alt="Runner beans drying on a rack" style="max-width: 160px"><p>Sow in May.</p>',
      },
      {
        name: 'only its width',
        code: '<img src="https://static.rootcellar.example/beans.png" width="160" alt="Runner beans drying on a rack"><p>Sow in May.</p>',
      },
    ],
    sound: [
      {
        name: 'its size as attributes',
        code: '<img src="https://static.rootcellar.example/beans.png" width="160" height="120" alt="Runner beans drying on a rack"><p>Sow in May.</p>',
      },
      {
        name: 'a proportion',
        code: '<img src="https://static.rootcellar.example/beans.png" alt="Runner beans drying on a rack" style="width: 160px; aspect-ratio: 4 / 3"><p>Sow in May.</p>',
      },
      {
        name: 'its room is kept by what it stands in',
        code: '<div style="height: 120px"><img src="https://static.rootcellar.example/beans.png" alt="Runner beans drying on a rack" style="max-height: 100%; max-width: 100%"></div><p>Sow in May.</p>',
      },
      {
        name: 'beside a text that is higher',
        code: '<div style="display: flex; gap: 12px"><p style="height: 200px; margin: 0">Sow in May.</p><div><img src="https://static.rootcellar.example/beans.png" alt="Runner beans drying on a rack" style="width: 120px"></div></div><p>Pick in July.</p>',
      },
    ],
  },
});

/** Neither does it say its size, nor can a rule say it that it knows of. */
function hasNoSize(element: MarkupElement): boolean {
  const has = (name: string) => (getValue(element, name) ?? '').trim() !== '';
  const hasFile = has('src') && !/^data:/i.test(getValue(element, 'src') ?? '');
  return hasFile && !(has('width') && has('height')) && !['style', 'class', 'id'].some(has);
}
