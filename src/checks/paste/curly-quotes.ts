import { atTag } from '../../core/measure/blame.js';
import { defineCheck, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import type { MarkupElement } from '../../core/markup/markup.js';
import { tell } from '../../core/tell.js';
import { joinWords } from '../../core/words/list.js';
import type { Edit, Span } from '../../core/snippet.js';

interface Data {
  element: number;
  /** The marks that stand where quotes belong. */
  marks: string;
  edits: Edit[];
}

const DOUBLE = '“”„‟″‶＂«»';
const SINGLE = '‘’‚‛′‵';
const SPACE = '\u00a0\u2007\u202f';
const ANY = new RegExp(`[${DOUBLE}${SINGLE}${SPACE}]`, 'u');
/** An attribute with marks for its quotes: which, and its value, as far as that may reach. */
const QUOTED = new RegExp(
  `([\\w:@.-]+\\s*=\\s*)(?:([${DOUBLE}])([^${DOUBLE}<>]*)([${DOUBLE}"])?|([${SINGLE}])([^${SINGLE}<>]*)([${SINGLE}'])?)`,
  'gu',
);

export default defineCheck({
  id: 'curly-quotes',
  subject: 'paste',
  level: 'blocker',
  title: 'Typographic quotes stand around attribute values',
  decided:
    'In a tag, an attribute’s value begins with a curly quote, a prime or an angle quote instead of a straight one, or a non-breaking space stands between attributes. Such marks in text, and inside straight quotes, are sound.',
  standard: 'HTML Living Standard, 13.1.2.3 Attributes',
  needs: [],
  markup: true,
  // What the parser made of the tag is told before what comes of it.
  explains: [
    {
      findings: [
        'alt-says-nothing',
        'attribute-misspelt',
        'autoplay-did-not-start',
        'autoplay-with-sound',
        'autoplay-without-inline',
        'frame-autoplay-with-sound',
        'frame-border-left-on',
        'frame-fixed-size',
        'frame-refused',
        'frame-unnamed',
        'frame-wider-than-slot',
        'linked-picture-unnamed',
        'page-scrolls-sideways',
        'picture-without-alt',
        'placeholder-left-in',
        'script-blocks-page',
        'slot-overflow',
      ],
      anywhere: true,
      fits: isOfTag,
    },
    { findings: ['nothing-rendered', 'tag-left-open'], anywhere: true, fits: () => true },
  ],
  judge(c): Fact<Data>[] {
    if (!ANY.test(c.markup.text)) return [];
    return flatMap(c.markup.elements, (element): Fact<Data>[] => {
      const { edits, where } = readTag(c.markup.text, element);
      if (!where) return [];
      const marks = [...new Set(edits.map(({ offset }) => name(c.markup.text[offset]!)))];
      return [
        tell.markup(atTag(element, where), {
          element: element.offset,
          marks: joinWords(marks),
          edits,
        }),
      ];
    });
  },
  says: ({ marks }) => ({
    message: `This tag has ${marks} where plain ones belong: the browser takes them for part of names and values.`,
    notice: 'Addresses lead nowhere, sizes and names are not as they were meant.',
    cure: 'Put straight quotes (`"`) and plain spaces in their place; copy code as plain text.',
  }),
  mend: ({ edits }: Data) =>
    edits.map(({ offset, endOffset, text }) => ({
      do: 'replace-text',
      span: { offset, endOffset },
      text,
    })),
  samples: [{ element: 0, marks: 'curly quotes', edits: [] }],
  examples: {
    faulty: [
      {
        name: 'from a text program',
        code: '<p>Sow in <a href=“https://www.seedlibrary.example/may” title=“The month of May”>May</a>.</p>',
      },
      { name: 'primes', code: '<p lang=″en″>Sow in May.</p>' },
    ],
    sound: [
      { name: 'in the text', code: '<p title="Sow “thinly”">Sow “thinly” and water well.</p>' },
      { name: 'straight ones', code: "<p title='Sow in May' lang=en>Sow in May.</p>" },
    ],
  },
});

function isOfTag({ culprit }: Fact<unknown>, { element }: Data): boolean {
  return culprit.at === 'element' && culprit.offset === element;
}

function name(mark: string): string {
  if (SPACE.includes(mark)) return 'non-breaking spaces';
  if (/[″‶′‵]/.test(mark)) return 'primes';
  return /[«»]/.test(mark) ? 'angle quotes' : 'curly quotes';
}

/** The marks in a start tag that stand where quotes belong, and the first attribute that has them. */
function readTag(
  text: string,
  { offset, tagEnd }: MarkupElement,
): { edits: Edit[]; where: Span | null } {
  const tag = blankQuoted(text.slice(offset, tagEnd));
  const edits: Edit[] = [];
  let where: Span | null = null;
  const put = (at: number, what: string) =>
    edits.push({ offset: offset + at, endOffset: offset + at + 1, text: what });
  for (const match of tag.matchAll(QUOTED)) {
    const [all, before, double, inner = '', end, single, other = '', last] = match;
    const open = double ?? single!;
    const value = double ? inner : other;
    const close = double ? end : last;
    const quote = double ? '"' : "'";
    const at = match.index + before!.length;
    where ??= { offset: offset + match.index, endOffset: offset + match.index + all.length };
    put(at, quote);
    if (close && close !== quote) put(at + open.length + value.length, quote);
  }
  for (const match of tag.matchAll(new RegExp(`[${SPACE}]`, 'gu'))) {
    const word = /^\S+/.exec(tag.slice(match.index + 1))?.[0].length ?? 0;
    where ??= { offset: offset + match.index, endOffset: offset + match.index + 1 + word };
    put(match.index, ' ');
  }
  return { edits: edits.sort((a, b) => a.offset - b.offset), where };
}

/** What stands in straight quotes is no mark. */
function blankQuoted(tag: string): string {
  return tag.replace(/=\s*("[^"]*"|'[^']*')/g, (all) => ' '.repeat(all.length));
}
