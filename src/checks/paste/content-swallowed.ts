import { defineCheck, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { getCode, isReadable } from '../../core/markup/code.js';
import {
  getElementFrom,
  getTagSpan,
  getValue,
  type Markup,
  type MarkupAttribute,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { listLostTags } from '../../core/markup/lost-tags.js';
import { isScript } from '../../core/markup/traits.js';
import { matchTags } from '../../core/markup/unparsed.js';
import type { Intent } from '../../core/mend/intent.js';
import type { Span } from '../../core/snippet.js';
import { tell } from '../../core/tell.js';
import { shorten } from '../../core/words/list.js';

type Swallowing = 'value' | 'tag' | 'table' | 'comment' | 'script';

interface Data {
  kind: Swallowing;
  /** The offset of the tag. */
  element: number;
  /** What is lost, or where that begins, as written. */
  lost: string;
  mend: Intent[] | null;
}

/** So much of what is written is quoted. */
const MOST = 50;

export default defineCheck({
  id: 'content-swallowed',
  subject: 'paste',
  level: 'blocker',
  title: 'A part of the paste is swallowed',
  decided:
    'The parser drops or hides a part: an attribute’s value without its second quote takes in what follows, a tag without its `>` the next tag, parts of a table stand in no table, a comment ends only where a later one does, a `</script>` in a string ends the script.',
  standard: 'HTML Living Standard, 13.2.5 Tokenization; 13.2.6 Tree construction',
  needs: [],
  markup: true,
  explains: [
    {
      findings: [
        'attribute-misspelt',
        'picture-missing',
        'picture-without-alt',
        'frame-unnamed',
        'linked-picture-unnamed',
        'player-address-malformed',
      ],
      anywhere: true,
      fits: ({ culprit }, { kind, element }: Data) =>
        (kind === 'value' || kind === 'tag') &&
        culprit.at === 'element' &&
        culprit.offset === element,
    },
    { findings: ['script-error'], anywhere: true, fits: (_, { kind }: Data) => kind === 'script' },
  ],
  judge: ({ markup }): Fact<Data>[] => [
    ...flatMap(markup.elements, (element) => judgeValue(markup, element)),
    ...judgeTags(markup),
    ...judgeTable(markup),
    ...judgeComments(markup),
    ...flatMap(markup.elements.filter(isScript), (element) => judgeScript(markup, element)),
  ],
  says: ({ kind, lost }) => SAYS[kind](lost),
  mend: ({ mend }) => mend,
  brief: ({ kind, lost }) =>
    kind === 'value' ? `a missing quote swallows \`${lost}\`` : BRIEF[kind],
  samples: [
    { kind: 'value', element: 0, lost: 'alt="Beans"', mend: null },
    { kind: 'tag', element: 0, lost: '<p>', mend: null },
    { kind: 'table', element: 0, lost: '<tr>', mend: null },
    { kind: 'comment', element: 0, lost: '<p>Sow', mend: null },
    { kind: 'script', element: 0, lost: '</script>', mend: null },
  ],
  examples: {
    faulty: [
      {
        name: 'a quote too few',
        code: '<img src="https://static.rootcellar.example/beans.png alt="Beans" width="40" height="30">',
      },
      {
        name: 'a tag that does not end',
        code: '<div class="may" <p>Sow in May.</p></div>',
      },
      { name: 'rows of no table', code: '<tr><td>Beans</td><td>May</td></tr>' },
      {
        name: 'a comment within a comment',
        code: '<!-- old list <p>Peas</p> <!-- till 2025 --><p>Beans</p>',
      },
    ],
    sound: [
      {
        name: 'all quotes there',
        code: '<img src="https://static.rootcellar.example/beans.png?a=b" alt="Beans = beans" width="40" height="30">',
      },
      { name: 'a table that leaves out what it may', code: '<table><td>Beans<td>May</table>' },
      { name: 'rows to be filled in later', code: '<template><tr><td>Beans</td></tr></template>' },
      { name: 'two comments', code: '<!-- old list --><p>Peas</p><!-- till 2025 --><p>Beans</p>' },
    ],
  },
});

const SAYS: Record<
  Swallowing,
  (lost: string) => { message: string; notice: string; cure: string }
> = {
  value: (lost) => ({
    message: `A quote is missing before \`${lost}\`: it is part of the value before it.`,
    notice: 'What it should set is not set, and the value before it is wrong.',
    cure: 'End that value with its quote.',
  }),
  tag: (lost) => ({
    message: `A \`>\` is missing before \`${lost}\`: that tag is lost.`,
    notice: 'What the lost tag was to do is not done, and what follows stands elsewhere.',
    cure: 'End the tag before it: `>`.',
  }),
  table: (lost) => ({
    message: `\`${lost}\` stands in no table: browsers drop the tags of it.`,
    notice: 'The texts run together, without rows and columns.',
    cure: 'Put a <table> around it.',
  }),
  comment: (lost) => ({
    message: `This comment ends only at the end of a later one: \`${lost}\` is hidden with it.`,
    notice: 'What stands between the two is not to be seen.',
    cure: 'End the comment where it is to end: `-->`.',
  }),
  script: () => ({
    message: 'The `</script>` in a string ends the script there.',
    notice: 'The script does not run, and the rest of it shows as text.',
    cure: 'Write `<\\/script>` in the string.',
  }),
};

const BRIEF: Record<Swallowing, string> = {
  value: 'a missing quote swallows what follows',
  tag: 'a tag without its `>` swallows the next',
  table: 'parts of a table without a table',
  comment: 'a comment hides what follows',
  script: 'a string ends the script',
};

function tellSwallowed(where: Span, element: number, told: Omit<Data, 'element'>): Fact<Data> {
  const culprit = { at: 'element', offset: element } as const;
  const group = `${told.kind} ${where.offset}`;
  return tell.markup({ where, culprit }, { ...told, element }, { group });
}

/** A value that runs to the opening quote of a later one: what follows that quote is a name with a quote in it. */
function judgeValue({ text }: Markup, element: MarkupElement): Fact<Data>[] {
  const { attributes } = element;
  for (let i = 0; i + 1 < attributes.length; i++) {
    const one = attributes[i]!;
    if (!one.value.trimEnd().endsWith('=')) continue;
    const opened = /=\s*(["'])/.exec(text.slice(one.offset, one.endOffset))?.[1];
    const next = findStray(attributes.slice(i + 1), one);
    if (!opened || !next) continue;
    const written = text.slice(one.offset, one.endOffset - 1);
    const lost = /(\s[^\s"'<>=]+\s*=\s*)$/.exec(written);
    const cut = /[\s/]*>/.exec(written)?.index ?? lost?.index;
    if (cut === undefined) continue;
    const at = one.offset + cut;
    const where = { offset: one.offset, endOffset: next.endOffset };
    const rest = text.slice(at, next.endOffset).trim();
    const data = {
      kind: 'value' as const,
      lost: shorten(rest, MOST),
      mend: [{ do: 'replace-text' as const, span: { offset: at, endOffset: at }, text: opened }],
    };
    return [tellSwallowed(where, element.offset, data)];
  }
  return [];
}

/** The words of the value that was swallowed stand as names; the last has its quote. */
function findStray(
  rest: readonly MarkupAttribute[],
  one: MarkupAttribute,
): MarkupAttribute | undefined {
  if (rest[0]!.offset > one.endOffset + 1) return undefined;
  if (one.value.includes('<')) return rest[0];
  const end = rest.find(({ name, value }) => value !== '' || /["']/.test(name));
  return end && /["']/.test(end.name) ? end : undefined;
}

function judgeTags(markup: Markup): Fact<Data>[] {
  return listLostTags(markup).map(({ offset, at, end, lost }) => {
    const where = { offset, endOffset: at + lost.length };
    const mend: Intent[] = [
      { do: 'replace-text', span: { offset: end, endOffset: end }, text: '>' },
    ];
    return tellSwallowed(where, offset, { kind: 'tag', lost: shorten(lost, MOST), mend });
  });
}

const PARTS = /<(tr|td|th|tbody|thead|tfoot|caption|colgroup|col)(?=[\s/>])[^>]*>/gi;

/** The first of the tags of a table that the parser made no element of. */
function judgeTable(markup: Markup): Fact<Data>[] {
  const { text, elements } = markup;
  const inTag = ({ offset }: Span) =>
    elements.some((one) => one.offset < offset && offset < one.tagEnd);
  const inTemplate = ({ offset }: Span) =>
    elements.some(
      (one) => one.name === 'template' && one.offset < offset && offset < one.endOffset,
    );
  for (const match of matchTags(text, PARTS)) {
    const span = { offset: match.index, endOffset: match.index + match[0].length };
    if (getElementFrom(markup, span.offset) || inTag(span) || inTemplate(span)) continue;
    return [
      tellSwallowed(span, span.offset, {
        kind: 'table',
        lost: shorten(match[0], MOST),
        mend: null,
      }),
    ];
  }
  return [];
}

/** Comments that hold the beginning of another one, with tags before that. */
function judgeComments({ text, elements }: Markup): Fact<Data>[] {
  if (!text.includes('<!--')) return [];
  const raw = elements.filter(({ name }) =>
    /^(script|style|textarea|title|xmp|iframe)$/.test(name),
  );
  const isRaw = (at: number) => raw.some((one) => one.offset <= at && at < one.endOffset);
  return flatMap([...text.matchAll(/<!--([\s\S]*?)-->/g)], (match) => {
    const inner = match[1]!;
    const second = inner.indexOf('<!--');
    const hidden = second < 0 ? null : /<\/?[a-z][\s\S]*/i.exec(inner.slice(0, second));
    if (!hidden || isRaw(match.index)) return [];
    const where = { offset: match.index, endOffset: match.index + 4 };
    const lost = shorten(hidden[0].trim(), MOST);
    return [tellSwallowed(where, match.index, { kind: 'comment', lost, mend: null })];
  });
}

function judgeScript(markup: Markup, element: MarkupElement): Fact<Data>[] {
  if (getValue(element, 'src') !== null) return [];
  const { code } = getCode(markup, element);
  const rest = markup.text.slice(element.endOffset);
  const end = rest.search(/<\/script/i);
  if (end < 0 || /<script/i.test(rest.slice(0, end)) || isReadable(code, element)) return [];
  const whole = `${code}<\\/script>${rest.slice(0, end)}`;
  if (!isReadable(whole, element)) return [];
  const offset = element.tagEnd + code.length;
  const where = { offset, endOffset: element.endOffset };
  const slash = { offset: offset + 1, endOffset: offset + 1 };
  const mend: Intent[] = [{ do: 'replace-text', span: slash, text: '\\' }];
  return [
    tellSwallowed(where, getTagSpan(element).offset, { kind: 'script', lost: '</script>', mend }),
  ];
}
