import { defineCheck, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import {
  getAttribute,
  getTagSpan,
  getValue,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { getMarkupName } from '../../core/markup/names.js';
import { isHidden } from '../../core/markup/hidden.js';

interface Data {
  /** The word that says nothing; null where there is no name at all. */
  word: string | null;
}

const SAYS_NOTHING =
  /^(i-?frame|frame|inline ?frame|embed|embedded( (content|frame|object))?|untitled( (document|frame))?|no title|title|none|null|undefined)$/i;
/** Frames of this size and less are there for their effect, not to be seen. */
const TINY = 2;

export default defineCheck({
  id: 'frame-unnamed',
  subject: 'frames',
  level: 'concern',
  title: 'A frame has no name',
  decided:
    'An iframe has no text in title, aria-label or what aria-labelledby points at, or only a word such as “iframe”. Hidden frames and frames of 2 px are left out.',
  standard: 'WCAG 2.2, 4.1.2 Name, Role, Value and 2.4.1 Bypass Blocks',
  needs: [],
  markup: true,
  judge(c): Fact<Data>[] {
    return flatMap(
      c.markup.elements.filter(
        (element) => element.name === 'iframe' && !isHidden(c.markup, element) && !isTiny(element),
      ),
      (element): Fact<Data>[] => {
        const name = getMarkupName(c.markup, element);
        if (name && !SAYS_NOTHING.test(name)) return [];
        const title = getAttribute(element, 'title') ?? getAttribute(element, 'aria-label');
        const where = title ?? getTagSpan(element);
        return [
          {
            where: { offset: where.offset, endOffset: where.endOffset },
            culprit: { at: 'element', offset: element.offset },
            data: { word: name || null },
            seen: [],
          },
        ];
      },
    );
  },
  says({ word }) {
    return {
      message: word
        ? `The frame’s name is “${word}”, which says nothing.`
        : 'The frame has no name.',
      notice: 'A screen reader announces a frame without saying what is in it.',
      cure: 'Add a title that says what the frame shows, such as `title="Map: the way to the glasshouse"`.',
    };
  },
  samples: [{ word: null }],
  examples: {
    faulty: [
      {
        name: 'no title',
        code: '<iframe src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 100%; height: 200px"></iframe>',
      },
      {
        name: 'a title that says nothing',
        code: '<iframe title="iframe" src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 100%; height: 200px"></iframe>',
      },
    ],
    sound: [
      {
        name: 'a title',
        code: '<iframe title="Map of the glasshouse" src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 100%; height: 200px"></iframe>',
      },
      {
        name: 'named by a heading',
        code: '<h2 id="way">The way to the glasshouse</h2><iframe aria-labelledby="way" src="https://maps.fernmap.example/embed/glasshouse" style="border: 0; width: 100%; height: 200px"></iframe>',
      },
    ],
  },
});

function isTiny(element: MarkupElement): boolean {
  return ['width', 'height'].every((name) => parseFloat(getValue(element, name) ?? '') <= TINY);
}
