import { atSnippet } from '../../core/measure/blame.js';
import { defineCheck, type Fact } from '../../core/check.js';
import { isParsedInPage } from '../../core/measure/inserts.js';
import { findBreak, type Break } from '../../core/markup/enclosure.js';
import { isPlainlyBalanced } from '../../core/markup/balance.js';
import { findLikelyEnd, type LikelyEnd } from '../../core/markup/likely-end.js';
import type { Intent } from '../../core/mend/intent.js';
import { tell } from '../../core/tell.js';

/** What is open, and where it was meant to end; null where nothing tells. */
type Data = Break & { likely?: LikelyEnd | null };

const SPAN = { offset: 0, endOffset: 0 };

export default defineCheck({
  id: 'tag-left-open',
  subject: 'paste',
  level: 'blocker',
  title: 'A tag is left open, or closed once too often',
  decided:
    'The snippet is parsed between two blocks of a host page: these must keep their parent and their order and gain no ancestor. Tags that HTML lets one omit are sound.',
  standard: 'HTML Living Standard, 13.2 Parsing HTML documents',
  needs: ['slot'],
  markup: true,
  // What it took in of the page makes it wide: that ends with it.
  explains: [
    { findings: ['page-scrolls-sideways', 'slot-overflow'], anywhere: true, fits: isWidened },
    { findings: ['slot-overflow'], anywhere: true, fits: isLetOut },
    { findings: ['nothing-rendered'], anywhere: true, fits: isSwallowed },
    { findings: ['host-content-damaged'], anywhere: true, fits: () => true },
  ],
  judge(c): Fact<Data>[] {
    // What is put in apart from the page is parsed apart from it.
    if (!isParsedInPage(c.house)) return [];
    const found = isPlainlyBalanced(c.markup) ? null : findBreak(c.snippet.text);
    if (!found) return [];
    return [
      tell.markup(atSnippet('enclosure', found.span), {
        ...found,
        likely: findLikelyEnd(c.markup, found),
      }),
    ];
  },
  says(found) {
    return {
      message: say(found),
      notice:
        'What follows on the page is swallowed, or ends up inside or outside where it was: menus and footers vanish.',
      cure: cure(found),
    };
  },
  mend: (found, _fact, { text }) => mend(found, text),
  brief: (found) => say(found).replace(/[:,].*$/, ''),
  samples: [
    { kind: 'element', name: 'div', span: SPAN, open: [0] },
    { kind: 'stray-end', name: 'div', span: SPAN, spans: [SPAN] },
    { kind: 'stray-end', name: 'div', span: SPAN, spans: [SPAN, SPAN] },
    { kind: 'comment', span: SPAN },
    { kind: 'comment', span: SPAN, likely: { span: SPAN, text: '-->', written: '-- >' } },
    {
      ...{ kind: 'element', name: 'div', span: SPAN, open: [0] },
      likely: { span: SPAN, text: '</div>', written: '<div class="bed">' },
    },
    { kind: 'tag', span: SPAN, missing: '"', at: 0 },
  ],
  examples: {
    faulty: [
      { name: 'a block that stays open', code: '<div style="padding: 4px"><p>Sow in May.</p>' },
      { name: 'a block closed twice', code: '<div><p>Sow in May.</p></div></div>' },
    ],
    sound: [
      { name: 'end tags that may be left out', code: '<ul><li>Beans<li>Peas</ul><p>Sow in May.' },
      {
        name: 'void elements',
        code: '<p>Sow in May.<br>Water well.</p><hr><img src="https://static.rootcellar.example/beans.png" width="40" alt="Beans">',
      },
    ],
  },
});

function isWidened({ culprit, byContent }: Fact<unknown>, found: Break): boolean {
  const open = found.kind === 'element' ? found.open : [];
  return byContent === true && culprit.at === 'element' && open.includes(culprit.offset);
}

/** What follows an end tag too many stands outside of the slot. */
function isLetOut({ culprit }: Fact<unknown>, found: Break): boolean {
  const isBehind = culprit.at === 'element' && culprit.offset > found.span.offset;
  return found.kind === 'stray-end' && isBehind;
}

/** What is taken for text, or for part of a tag, does not show. */
function isSwallowed(_other: Fact<unknown>, { kind }: Break): boolean {
  return kind === 'raw-text' || kind === 'comment' || kind === 'tag';
}

function say(found: Break): string {
  if (found.kind === 'element') {
    const others = found.open.length > 1 ? `, and ${found.open.length - 1} more inside` : '';
    return `<${found.name}> is never closed${others}: the page goes on inside it.`;
  }
  if (found.kind === 'stray-end')
    return `</${found.name}> closes something of the page: it has no start in the snippet.`;
  if (found.kind === 'raw-text')
    return `<${found.name}> is never closed: all that follows on the page is taken for its text.`;
  if (found.kind === 'comment')
    return 'A comment is never closed: all that follows on the page is part of it.';
  if (found.missing === '>')
    return 'A tag’s “>” is missing: what follows is taken for its attributes.';
  return 'A quote is opened and never closed: what follows is taken for the value.';
}

function cure(found: Data): string {
  if (found.likely && found.kind === 'comment')
    return `End it where it was meant to end: \`-->\` in the place of \`${found.likely.written}\`.`;
  if (found.likely)
    return `Add \`${found.likely.text}\` before the \`${found.likely.written}\` that now stands in the one before it.`;
  if (found.kind === 'element' && found.open.length > 1)
    return 'Close each of them where it is to end.';
  if (found.kind === 'element' || found.kind === 'raw-text')
    return `Add at the end: \`</${found.name}>\`.`;
  if (found.kind === 'stray-end')
    return found.spans.length === 1
      ? `Take \`</${found.name}>\` out.`
      : 'Take all end tags out that have no start.';
  if (found.kind === 'comment') return 'Add at the end: `-->`.';
  return `Put the missing \`${found.missing}\` in.`;
}

function mend(found: Data, text: string): Intent[] | null {
  if (found.likely)
    return [{ do: 'replace-text', span: found.likely.span, text: found.likely.text }];
  const put = (at: number, what: string): Intent[] => [
    { do: 'replace-text', span: { offset: at, endOffset: at }, text: what },
  ];
  // On a line of its own where the code has several, before the break that ends it.
  const [, breaks = ''] = /(\r?\n)\s*$/.exec(text) ?? [];
  const last = breaks === '' ? text.length : text.trimEnd().length;
  const lead = /\n/.test(text.slice(0, last)) ? breaks : '';
  const append = (end: string) => put(last, lead + end);
  if (found.kind === 'element') return found.open.length === 1 ? append(`</${found.name}>`) : null;
  if (found.kind === 'raw-text')
    return found.name === 'plaintext' ? null : append(`</${found.name}>`);
  if (found.kind === 'comment') return append('-->');
  if (found.kind === 'stray-end') {
    const intents = found.spans.map((span): Intent => ({ do: 'replace-text', span, text: '' }));
    return intents.length > 0 ? intents : null;
  }
  return found.missing === '>' && found.at < text.length ? put(found.at, '>') : null;
}
