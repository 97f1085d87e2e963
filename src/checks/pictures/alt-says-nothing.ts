import { atTag } from '../../core/measure/blame.js';
import { defineCheck, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { isHidden } from '../../core/markup/hidden.js';
import {
  getAttribute,
  getText,
  type Markup,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { WITH_ALT } from '../../core/standards/elements.js';
import { askFor } from '../../core/mend/attribute.js';
import { tell } from '../../core/tell.js';
import { squeeze } from '../../core/words/squeeze.js';

type Why = 'file' | 'word' | 'punctuation' | 'beside';

interface Data {
  alt: string;
  why: Why;
}

const FILE = /^(\S+[/\\])?[^/\\]*\.(jpe?g|jfif|png|gif|webp|avif|svg|bmp|tiff?|heic)$/i;
const CAMERA = /^(img|dsc[nf]?|dcim|pxl|mvimg|screenshot)[-_ ]?\d[\d\s_.-]*$/i;
const WORD =
  /^(an? |the )?(image|img|photo(graph)?|picture|pic|graphic|icon|thumbnail|untitled|placeholder|alt( text)?)s?[\s_-]*\d*$/i;
const PUNCTUATION = /^[\p{P}\p{Sm}\p{Sk}\s]+$/u;

export default defineCheck({
  id: 'alt-says-nothing',
  subject: 'pictures',
  level: 'concern',
  title: 'A text alternative says nothing',
  decided:
    'The alt is a file name, a word such as “image”, “photo” or “untitled”, only punctuation, or the same as the text right beside the picture.',
  standard: 'WCAG 2.2, 1.1.1 Non-text Content',
  needs: [],
  markup: true,
  judge(c): Fact<Data>[] {
    return flatMap(
      c.markup.elements.filter(({ name }) => WITH_ALT.has(name)),
      (element): Fact<Data>[] => {
        const alt = getAttribute(element, 'alt');
        const text = squeeze(alt?.value ?? '');
        const why = alt && text ? judgeText(text, element, c.markup) : null;
        if (!alt || !why || isHidden(c.markup, element)) return [];
        return [tell.markup(atTag(element, alt), { alt: text, why })];
      },
    );
  },
  says({ alt, why }) {
    const words: Record<Why, string> = {
      file: `The text alternative is a file name: “${alt}”.`,
      word: `The text alternative “${alt}” says only that there is a picture.`,
      punctuation: `The text alternative is only punctuation: “${alt}”.`,
      beside: `The text alternative repeats the text right beside the picture: “${alt}”.`,
    };
    return {
      message: words[why],
      notice:
        why === 'beside'
          ? 'A screen reader says the same twice.'
          : 'People who cannot see the picture learn nothing about it.',
      cure:
        why === 'beside'
          ? 'Leave it empty (`alt=""`), or say what the picture adds.'
          : 'Say what the picture shows or does; `alt=""` if it is mere decoration.',
    };
  },
  mend: ({ why }, { culprit }) =>
    askFor(
      culprit,
      'alt',
      why === 'beside'
        ? 'What does the picture show that the words beside it do not say?'
        : 'What does the picture show?',
      { decoration: { name: 'alt', value: '' } },
    ),
  samples: [
    { alt: 'image', why: 'word' },
    { alt: 'Beans', why: 'beside' },
  ],
  examples: {
    faulty: [
      {
        name: 'a file name',
        code: '<img src="https://static.rootcellar.example/beans.png" width="160" height="120" alt="IMG_2041.jpg">',
      },
      {
        name: 'the caption again',
        code: '<figure><img src="https://static.rootcellar.example/beans.png" width="160" height="120" alt="Runner beans"><figcaption>Runner beans.</figcaption></figure>',
      },
    ],
    sound: [
      {
        name: 'words for what is shown',
        code: '<img src="https://static.rootcellar.example/beans.png" width="160" height="120" alt="Photo of runner beans drying on a rack">',
      },
      {
        name: 'more than the caption',
        code: '<figure><img src="https://static.rootcellar.example/beans.png" width="160" height="120" alt="Red and brown beans on a cloth"><figcaption>Runner beans.</figcaption></figure>',
      },
    ],
  },
});

function judgeText(text: string, element: MarkupElement, markup: Markup): Why | null {
  if (FILE.test(text) || CAMERA.test(text)) return 'file';
  if (WORD.test(text)) return 'word';
  if (PUNCTUATION.test(text)) return 'punctuation';
  const own = normalize(text);
  return isBeside(own, element, markup) ? 'beside' : null;
}

/** What begins with another letter is another text: most texts beside do, and need not be looked at whole. */
function getFirst(text: string): string {
  return (FIRST.exec(text)?.[0] ?? '').toLowerCase();
}

const FIRST = /[^\p{P}\s]/u;

/** The same of an element's text: its own comes before that of its children. */
function getFirstIn({ text, children }: MarkupElement): string {
  return getFirst(text) || (children.map(getFirstIn).find(Boolean) ?? '');
}

/** Whether a text stands right beside: as the rest of the element around, or as the element before or after. */
function isBeside(own: string, element: MarkupElement, markup: Markup): boolean {
  const around = element.parent;
  const siblings = around?.children ?? markup.elements.filter(({ parent }) => parent === null);
  const at = siblings.indexOf(element);
  const first = own.charAt(0);
  const isNear = [siblings[at - 1], siblings[at + 1]].some(
    (one) => one && getFirstIn(one) === first && normalize(getText(one)) === own,
  );
  const rest = around?.text ?? '';
  if (isNear || (getFirst(rest) === first && normalize(rest) === own)) return true;
  const alone = around && siblings.length === 1 && !rest.trim();
  return alone ? isBeside(own, around, markup) : false;
}

function normalize(text: string): string {
  return text
    .toLowerCase()
    .replace(/[\p{P}\s]+/gu, ' ')
    .trim();
}
