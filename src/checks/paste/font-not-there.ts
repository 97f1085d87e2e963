import { defineCheck, makeSeen, type Case, type Fact } from '../../core/check.js';
import type { TextFact } from '../../core/evidence.js';
import { flatMap } from '../../core/lists.js';
import { atSnippet, blameElement, getBlamed, type Blame } from '../../core/measure/blame.js';
import { isRead } from '../../core/measure/texts.js';
import { getAttribute, listAround, type Markup } from '../../core/markup/markup.js';
import { findDeclaration } from '../../core/markup/styles.js';
import type { Span } from '../../core/snippet.js';
import { tell } from '../../core/tell.js';
import { formatWidths, shorten } from '../../core/words/list.js';

interface Data {
  /** The family that is asked for; '' where none is, in a frame of its own. */
  family: string;
  /** The family of the page around. */
  page: string;
  sample: string;
}

export default defineCheck({
  id: 'font-not-there',
  subject: 'paste',
  level: 'advice',
  title: 'A font that it counts on is not there',
  decided:
    'The family that a text of the snippet’s asks for first is neither installed, nor declared, nor loaded. Not those that come with the common systems, nor what the page around asks for. In a frame of its own also text that asks for no family, although the page around has one.',
  standard: 'CSS Fonts Level 4, 5 Font Matching Algorithm',
  needs: ['texts', 'slot'],
  markup: false,
  judge: (c): Fact<Data>[] => [...listMissing(c), ...listPlain(c)],
  says({ family, page, sample }, { seen }) {
    const where = formatWidths(seen);
    if (family === '')
      return {
        message: `The text “${sample}” asks for no font, and in a frame of its own it does not get that of the page, ${page} (${where}).`,
        notice: 'It looks as if it belonged to another site.',
        cure: `Ask for the font of the page in the snippet’s own styles: \`font-family: ${page}\`.`,
      };
    return {
      message: `The font “${family}” of the text “${sample}” is not there: neither installed nor loaded (${where}).`,
      notice: 'Visitors see another font, in which lines may be longer and break elsewhere.',
      cure: `Bring it along by an \`@font-face\` rule, or ask for one that visitors have.`,
    };
  },
  brief: ({ family }) => (family === '' ? 'no font in a frame of its own' : `no font “${family}”`),
  samples: [
    { family: 'Orchard Serif', page: '', sample: 'Sow thinly' },
    { family: '', page: 'Arimo, sans-serif', sample: 'Sow thinly' },
  ],
  examples: {
    faulty: [
      {
        name: 'a font that nobody brings along',
        code: '<p style="font-family: \'Orchard Serif\', serif">Sow thinly, and wait.</p>',
      },
      {
        name: 'text without a font in a frame of its own',
        code: '<p>Sow thinly, and wait.</p>',
        under: { insert: 'frame' },
      },
    ],
    sound: [
      {
        name: 'a font of the usual systems',
        code: '<p style="font-family: Georgia, serif">Sow thinly, and wait.</p>',
      },
      {
        name: 'a font that it brings along',
        code: '<style>@font-face { font-family: "Orchard Serif"; src: url(https://static.rootcellar.example/rootcellar.woff2) }</style><p style="font-family: \'Orchard Serif\', serif">Sow thinly, and wait.</p>',
      },
    ],
  },
});

type Needs = 'texts' | 'slot';

/** Of each family the first text. */
function listMissing({ markup, renders }: Case<Needs>): Fact<Data>[] {
  return flatMap(renders, (render) =>
    flatMap(render.texts.filter(isRead), (text): Fact<Data>[] => {
      const { missingFamily: family, sample } = text;
      const blame = blameElement(markup, text);
      const where = family === null ? null : locate(markup, blame);
      // What is inherited from the page is the page's own.
      if (family === null || where === null) return [];
      return [
        tell.seen(
          atSnippet(`font ${family}`, where),
          { family, page: '', sample: shorten(sample, 30) },
          makeSeen(render, { family }),
          { group: '' },
        ),
      ];
    }),
  );
}

/** Of a snippet in a frame the first text that has the browser's own family. */
function listPlain({ markup, renders }: Case<Needs>): Fact<Data>[] {
  return flatMap(renders, (render): Fact<Data>[] => {
    const { family, pageFamily } = render.slot;
    if (pageFamily === null || pageFamily === family) return [];
    const text = render.texts.filter(isRead).find((one) => asksForNone(markup, one));
    if (!text) return [];
    const blame = blameElement(markup, text);
    return [
      tell.seen(
        atSnippet('no font', blame.where),
        { family: '', page: pageFamily, sample: shorten(text.sample, 30) },
        makeSeen(render, { family }),
        { group: '' },
      ),
    ];
  });
}

/** Browsers give these a family of their own, whatever the page has. */
const OWN_FAMILY = new Set(
  'pre code kbd samp tt listing xmp plaintext button input select textarea meter'.split(' '),
);

function asksForNone(markup: Markup, text: TextFact): boolean {
  if (!('offset' in text.from)) return false;
  const blame = blameElement(markup, text);
  const around = listAround(getBlamed(markup, blame));
  return locate(markup, blame) === null && !around.some(({ name }) => OWN_FAMILY.has(name));
}

/** What asks for the family, of the element or of one around it; null where nothing of the snippet's does. */
function locate(markup: Markup, blame: Blame): Span | null {
  const element = getBlamed(markup, blame);
  if (!element) return blame.where;
  for (const at of listAround(element)) {
    const found =
      findDeclaration(markup, at, ['font-family', 'font']) ?? getAttribute(at, 'face') ?? null;
    if (found) return { offset: found.offset, endOffset: found.endOffset };
  }
  return null;
}
