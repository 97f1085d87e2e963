import { defineCheck, makeSeen, type Case, type Fact, type MarkupFact } from '../../core/check.js';
import type { FrameFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { atTag, blameElement, getBlamed } from '../../core/measure/blame.js';
import {
  getAttribute,
  getTagSpan,
  getValue,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { getMarkupName } from '../../core/markup/names.js';
import { isHidden } from '../../core/markup/hidden.js';
import { askFor } from '../../core/mend/attribute.js';
import { tell } from '../../core/tell.js';

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
    'An iframe has no text in title, aria-label or what aria-labelledby points at, or only a word such as “iframe”; also one that code makes. Hidden frames and frames of 2 px are left out.',
  standard: 'WCAG 2.2, 4.1.2 Name, Role, Value and 2.4.1 Bypass Blocks',
  needs: ['frames'],
  markup: 'part',
  judge: (c): Fact<Data>[] => [
    ...flatMap(
      c.markup.elements.filter(
        (element) =>
          element.name === 'iframe' &&
          !isHidden(c.markup, element) &&
          !isTiny((name) => getValue(element, name)),
      ),
      (element) => judgeWritten(c, element),
    ),
    ...judgeMade(c),
  ],
  says({ word }) {
    return {
      message: word
        ? `The frame’s name is “${word}”, which says nothing.`
        : 'The frame has no name.',
      notice: 'A screen reader announces a frame without saying what is in it.',
      cure: 'Add a title that says what the frame shows, such as `title="Map: the way to the glasshouse"`.',
    };
  },
  mend(_data, { culprit }, markup) {
    const element = getBlamed(markup, { culprit });
    const labelled = element && getValue(element, 'aria-label')?.trim();
    return askFor(culprit, labelled ? 'aria-label' : 'title', 'What does the frame show?');
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

function judgeWritten(c: Case<'frames'>, element: MarkupElement): MarkupFact<Data>[] {
  const name = getMarkupName(c.markup, element);
  if (!saysNothing(name) || isNamedLater(c, element)) return [];
  const title = getAttribute(element, 'title') ?? getAttribute(element, 'aria-label');
  return [tell.markup(atTag(element, title ?? getTagSpan(element)), { word: name || null })];
}

/** A script may name it when the page is there. */
function isNamedLater({ renders }: Case<'frames'>, { offset }: MarkupElement): boolean {
  return renders.some(({ frames }) =>
    frames.some((one) => 'offset' in one.from && one.from.offset === offset && isNamed(one)),
  );
}

/** Those that code makes, as far as they are to be seen. */
function judgeMade({ markup, renders }: Case<'frames'>): Fact<Data>[] {
  return flatMap(renders, (render) =>
    render.frames
      .filter((one) => one.tag === 'iframe' && 'script' in one.from && one.exposed && !isNamed(one))
      .filter(({ shown, box }) => shown && box.width > TINY && box.height > TINY)
      .filter(({ attributes }) => !isTiny((name) => attributes[name]))
      .map((one): Fact<Data> => {
        const blame = blameElement(markup, one);
        const word = getOwnName(one);
        return tell.seen(blame, { word: word || null }, makeSeen(render, {}));
      }),
  );
}

/** What another element names it by is not read where code makes it: it is taken for a name. */
function isNamed(frame: FrameFact): boolean {
  return frame.attributes['aria-labelledby'] !== undefined || !saysNothing(getOwnName(frame));
}

function getOwnName({ attributes }: FrameFact): string {
  return (attributes['aria-label'] ?? attributes.title ?? '').trim();
}

function saysNothing(name: string | null): boolean {
  return !name || SAYS_NOTHING.test(name);
}

/** Its border is not counted. */
function isTiny(get: (attribute: string) => string | null | undefined): boolean {
  return ['width', 'height'].every((name) => parseFloat(get(name) ?? '') <= TINY);
}
