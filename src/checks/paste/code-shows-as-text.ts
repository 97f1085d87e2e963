import { atSnippet } from '../../core/measure/blame.js';
import { defineCheck, type Fact } from '../../core/check.js';
import { getElementAt, listAround, type Markup } from '../../core/markup/markup.js';
import type { Span } from '../../core/snippet.js';
import { tell } from '../../core/tell.js';

interface Data {
  name: string;
  kind: 'escaped' | 'brackets';
  /** From the first escaped tag to the end of the last. */
  span: Span;
}

const NAMES =
  'iframe|script|video|audio|embed|object|img|picture|source|svg|div|section|article|span|p|a|h[1-6]|ul|ol|li|table|form|input|button|style|link|blockquote|figure|center|font';
/** A start tag with an attribute, or one of an element that is there for nothing else. */
const ESCAPED = new RegExp(
  `&(?:amp;)*lt;\\s*(?:(${NAMES})\\s+[\\w:-]+\\s*=|(script|iframe|style|video|audio)\\s*&(?:amp;)*gt;)`,
  'i',
);
const BRACKETS =
  /\[\s*(iframe|video|audio|img|embed|script)\s+[^\]<>]*\b(src|href)\s*=\s*["'“”]?[^\]]+\]/i;
/** Where code is meant to be read. */
const FOR_READING =
  /^(code|pre|samp|kbd|tt|listing|xmp|textarea|script|style|template|noscript|title|option)$/;

export default defineCheck({
  id: 'code-shows-as-text',
  subject: 'paste',
  level: 'blocker',
  title: 'The code is escaped, and would be read as text',
  decided:
    'The text has an escaped start tag with an attribute (`&lt;iframe src=`), or an escaped script, style or player with its end, or a tag of embedding code in square brackets, outside of code, pre, samp, kbd and the like.',
  standard: 'HTML Living Standard, 13.1.4 Character references',
  needs: [],
  markup: true,
  // A line of code that is shown does not break, and does nothing of what it was to do.
  explains: [
    {
      findings: ['page-scrolls-sideways', 'slot-overflow', 'nothing-rendered'],
      anywhere: true,
      fits: () => true,
    },
  ],
  judge(c): Fact<Data>[] {
    const found = findEscaped(c.markup) ?? findBrackets(c.markup);
    if (!found) return [];
    return [tell.markup(atSnippet('paste', found.where), found.data)];
  },
  says: ({ name, kind }) => ({
    message:
      kind === 'escaped'
        ? `The tags are escaped (\`&lt;${name}\`): the code would be read as text.`
        : `The code is in square brackets (\`[${name} …]\`), which browsers show as text.`,
    notice: 'Visitors read the code instead of seeing what it makes.',
    cure:
      kind === 'escaped'
        ? 'Write `<` for `&lt;` and `>` for `&gt;`; paste code into a field for code, not for text.'
        : 'Ask for the code as HTML; brackets work only in the system that they were made for.',
  }),
  mend({ kind, span }, _fact, { text }) {
    if (kind !== 'escaped') return null;
    const written = unescape(text.slice(span.offset, span.endOffset));
    return [{ do: 'replace-text', span, text: written }];
  },
  samples: [
    { name: 'iframe', kind: 'escaped', span: { offset: 0, endOffset: 0 } },
    { name: 'iframe', kind: 'brackets', span: { offset: 0, endOffset: 0 } },
  ],
  examples: {
    faulty: [
      {
        name: 'escaped by an editor',
        code: '&lt;p class="note"&gt;Sow in May.&lt;/p&gt;',
      },
      {
        name: 'in brackets',
        code: '[iframe src="https://maps.fernmap.example/embed/x" height="90"]',
      },
    ],
    sound: [
      {
        name: 'code that is meant to be read',
        code: '<p>Write <code>&lt;p class="note"&gt;</code> for a note.</p>',
      },
      { name: 'a sign for less', code: '<p>Sow when nights are &lt; 5 °C, in a [cold] frame.</p>' },
    ],
  },
});

interface Found {
  where: Span;
  data: Data;
}

function findEscaped(markup: Markup): Found | null {
  const match = findInText(markup, ESCAPED);
  if (!match) return null;
  const [offset, all, name] = match;
  const length = all.replace(/\s+[\w:-]+\s*=$/, '').length;
  // To the last escaped end of a tag in the same run of text.
  const rest = /^[^<]*/.exec(markup.text.slice(offset))![0];
  const ends = [...rest.matchAll(/&(?:amp;)*gt;/gi)];
  const last = ends.at(-1);
  const endOffset = last ? offset + last.index + last[0].length : offset + rest.trimEnd().length;
  return {
    where: { offset, endOffset: offset + length },
    data: { name, kind: 'escaped', span: { offset, endOffset } },
  };
}

function findBrackets(markup: Markup): Found | null {
  const match = findInText(markup, BRACKETS);
  if (!match) return null;
  const [offset, all, name] = match;
  const where = { offset, endOffset: offset + all.length };
  return { where, data: { name, kind: 'brackets', span: where } };
}

/** The first match that stands in text for everybody: where, all of it, and the element's name. */
function findInText(markup: Markup, pattern: RegExp): [number, string, string] | null {
  const text = blankComments(markup.text);
  for (const match of text.matchAll(new RegExp(pattern, 'gi'))) {
    const name = (match[1] ?? match[2] ?? '').toLowerCase();
    const bare = pattern === ESCAPED && match[2] !== undefined;
    const whole = !bare || closes(text, match.index, name);
    if (whole && isText(markup, match.index)) return [match.index, match[0], name];
  }
  return null;
}

/** A bare name may be spoken of; with its end it is code. */
function closes(text: string, from: number, name: string): boolean {
  const run = /^[^<]*/.exec(text.slice(from))![0];
  return new RegExp(`&(?:amp;)*lt;/${name}\\s*&(?:amp;)*gt;`, 'i').test(run);
}

function blankComments(text: string): string {
  return text.replace(/<!--[\s\S]*?(-->|$)/g, (all) => ' '.repeat(all.length));
}

function isText(markup: Markup, offset: number): boolean {
  const at = getElementAt(markup, offset);
  // An element's end is not yet the place behind it.
  if (at && offset < at.tagEnd && offset > at.offset) return false;
  const around = listAround(at).filter(({ endOffset }) => offset < endOffset);
  return !around.some(({ name }) => FOR_READING.test(name));
}

const SIGNS: Record<string, string> = {
  lt: '<',
  gt: '>',
  quot: '"',
  apos: "'",
  '#39': "'",
  '#34': '"',
};

/** One level less, or as many as were put on: until the tags are tags. */
function unescape(text: string): string {
  let written = text;
  while (/&amp;(?:amp;)*(lt|gt);/i.test(written)) written = written.replace(/&amp;/gi, '&');
  return written
    .replace(/&(lt|gt|quot|apos|#39|#34);/gi, (_, name: string) => SIGNS[name.toLowerCase()]!)
    .replace(/&amp;/gi, '&');
}
