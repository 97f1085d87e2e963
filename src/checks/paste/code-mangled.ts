import { type Blame, atTag, atSnippet } from '../../core/measure/blame.js';
import { defineCheck, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { getValue, type Markup, type MarkupElement } from '../../core/markup/markup.js';
import { getCode, isReadable } from '../../core/markup/code.js';
import { isScript } from '../../core/markup/traits.js';
import type { Intent } from '../../core/mend/intent.js';
import type { Edit } from '../../core/snippet.js';
import { tell } from '../../core/tell.js';

type Mangling = 'fences' | 'ampersands' | 'script' | 'style';

interface Data {
  kind: Mangling;
  edits: Edit[];
  /** What was put in: `<br>`, `&amp;`. */
  added: string;
}

/** The marks of a chat or a document around code. */
const FENCE = /^[ \t]*(```|~~~)[^\n`~]*$/gm;
const ADDRESSES = /^(src|href|data|action|formaction|poster|srcset)$/;
/** What editors put into code that they take for text. */
const TAGS = /<br\s*\/?>|<\/?p(?:\s[^>]*)?>/gi;
const SIGNS: Record<string, string> = {
  amp: '&',
  lt: '<',
  gt: '>',
  quot: '"',
  '#39': "'",
  nbsp: ' ',
};
const REFERENCE = /&(amp|lt|gt|quot|#39|nbsp);/g;

export default defineCheck({
  id: 'code-mangled',
  subject: 'paste',
  level: 'blocker',
  title: 'The code was changed on its way',
  decided:
    'A script that can be read only once the `<p>`, `<br>` or `&amp;` put into it are taken out again, a style with such in it, an address with `&amp;amp;`, or the marks of a chat (```) around the code.',
  standard: null,
  needs: [],
  markup: true,
  // A script that cannot be read draws nothing, and its marks are no text of their own.
  explains: [{ findings: ['nothing-rendered', 'script-error'], anywhere: true, fits: () => true }],
  judge: (c): Fact<Data>[] => [
    ...judgeFences(c.markup),
    ...(c.markup.text.includes('&amp;amp;')
      ? flatMap(c.markup.elements, (element) => judgeAddresses(c.markup, element))
      : []),
    ...flatMap(c.markup.elements.filter(isCode), (element) => judgeCode(c.markup, element)),
  ],
  says: ({ kind, added }) => WORDS[kind](added),
  mend: ({ edits }: Data): Intent[] =>
    edits.map(({ offset, endOffset, text }) => ({
      do: 'replace-text',
      span: { offset, endOffset },
      text,
    })),
  samples: [
    { kind: 'script', edits: [], added: '<br>' },
    { kind: 'ampersands', edits: [], added: '&amp;amp;' },
    { kind: 'fences', edits: [], added: '```' },
  ],
  examples: {
    faulty: [
      {
        name: 'line breaks in a script',
        code: '<p>Sow in May.</p><script>var month = 5;<br />var bed = month + 1;</script>',
      },
      { name: 'the marks of a chat', code: '```html\n<p>Sow in May.</p>\n```' },
    ],
    sound: [
      {
        name: 'tags in a script’s text',
        code: '<p>Sow in May.</p><script>var row = "Sow<br>Water &amp; weed";</script>',
      },
      {
        name: 'an address as it is written in HTML',
        code: '<p><a href="https://www.seedlibrary.example/?a=1&amp;b=2">Sow</a></p>',
      },
    ],
  },
});

const WORDS: Record<
  Mangling,
  (added: string) => { message: string; notice: string; cure: string }
> = {
  fences: (added) => ({
    message: `The marks of a chat or document (\`${added}\`) stand around the code.`,
    notice: 'Visitors read these marks.',
    cure: 'Take the lines with the marks out.',
  }),
  ampersands: () => ({
    message: 'An address was escaped twice: it has `&amp;amp;` in it.',
    notice: 'The parts of the address behind it do not arrive.',
    cure: 'Write `&amp;` for `&amp;amp;`.',
  }),
  script: (added) => ({
    message: `An editor put \`${added}\` into the script: browsers cannot read it.`,
    notice: 'The script does nothing at all.',
    cure: 'Take out what was put in; paste code into a field for code, not for text.',
  }),
  style: (added) => ({
    message: `An editor put \`${added}\` into the styles: browsers leave rules out.`,
    notice: 'Parts have no style, or the wrong one.',
    cure: 'Take out what was put in; paste code into a field for code, not for text.',
  }),
};

function toFact(blame: Blame, data: Data): Fact<Data> {
  return tell.markup(blame, data, { group: `${data.kind} ${blame.where.offset}` });
}

/** Marks that stand alone in their lines, the first before all code and the last behind it. */
function judgeFences({ text }: Markup): Fact<Data>[] {
  const fences = [...text.matchAll(FENCE)];
  const [first] = fences;
  const last = fences.at(-1);
  if (!first || !last || text.slice(0, first.index).trim() !== '') return [];
  const ends = text.slice(last.index + last[0].length).trim() === '';
  const marks = ends && last !== first ? [first, last] : [first];
  const edits = marks.map((one): Edit => {
    const endOffset = one.index + one[0].length;
    const next = text.startsWith('\n', endOffset) ? 1 : 0;
    return { offset: one.index, endOffset: endOffset + next, text: '' };
  });
  const where = { offset: first.index, endOffset: first.index + first[0].trimEnd().length };
  const data: Data = { kind: 'fences', edits, added: first[1]! };
  return [toFact(atSnippet('fences', where), data)];
}

function judgeAddresses({ text }: Markup, element: MarkupElement): Fact<Data>[] {
  return flatMap(element.attributes, ({ name, offset, endOffset }) => {
    const written = text.slice(offset, endOffset);
    if (!ADDRESSES.test(name) || !/&(amp;){2}/.test(written)) return [];
    const edits = [...written.matchAll(/&(?:amp;){2,}/g)].map((match) => ({
      offset: offset + match.index,
      endOffset: offset + match.index + match[0].length,
      text: '&amp;',
    }));
    const data: Data = { kind: 'ampersands', edits, added: '&amp;amp;' };
    return [toFact(atTag(element, { offset, endOffset }), data)];
  });
}

function isCode(element: MarkupElement): boolean {
  return element.name === 'style' || (isScript(element) && getValue(element, 'src') === null);
}

function judgeCode({ text }: Markup, element: MarkupElement): Fact<Data>[] {
  const script = element.name !== 'style';
  const { code, start } = getCode({ text }, element);
  const found = [...code.matchAll(TAGS), ...code.matchAll(REFERENCE)];
  found.sort((a, b) => a.index - b.index);
  const [first] = found;
  if (!first) return [];
  const edits = found.map((match) => ({
    offset: start + match.index,
    endOffset: start + match.index + match[0].length,
    text: SIGNS[match[1] ?? ''] ?? '',
  }));
  const undone = code.replace(TAGS, '').replace(REFERENCE, (_, name: string) => SIGNS[name]!);
  const broken = script
    ? !isReadable(code, element) && isReadable(undone, element)
    : isBrokenStyle(code);
  if (!broken) return [];
  const where = { offset: edits[0]!.offset, endOffset: edits[0]!.endOffset };
  const data: Data = { kind: script ? 'script' : 'style', edits, added: first[0] };
  return [toFact(atTag(element, where), data)];
}

/** Outside of strings and comments no style has a tag or a reference in it. */
function isBrokenStyle(css: string): boolean {
  const bare = css.replace(/\/\*[\s\S]*?\*\/|"[^"\n]*"|'[^'\n]*'|url\([^)]*\)/g, '');
  return new RegExp(`${TAGS.source}|${REFERENCE.source}`, 'i').test(bare);
}
