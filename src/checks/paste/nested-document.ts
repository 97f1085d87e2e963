import { atSnippet } from '../../core/measure/blame.js';
import { defineCheck, type Fact } from '../../core/check.js';
import { standsInPage } from '../../core/measure/inserts.js';
import { matchTags } from '../../core/markup/unparsed.js';
import type { Intent } from '../../core/mend/intent.js';
import type { Span } from '../../core/snippet.js';
import { tell } from '../../core/tell.js';

interface Data {
  /** What of a document's frame is in it: `<html>`, `<body>`. */
  tags: string[];
  /** Where all of them are, end tags too. */
  spans: Span[];
}

const FRAME = /<!doctype\b[^>]*>|<\/?(html|head|body)(?=[\s/>])[^>]*>/gi;

export default defineCheck({
  id: 'nested-document',
  subject: 'paste',
  level: 'advice',
  title: 'A whole document was pasted into the page',
  decided:
    'The snippet has a doctype, or html, head or body tags: inside a page browsers leave them out.',
  standard: 'HTML Living Standard, 13.2.6.4.7 The “in body” insertion mode',
  needs: [],
  markup: true,
  judge(c): Fact<Data>[] {
    if (!standsInPage(c.house)) return [];
    const found = matchTags(c.snippet.text, FRAME).map((match) => ({
      span: { offset: match.index, endOffset: match.index + match[0].length },
      name: match[1] ? `<${match[1].toLowerCase()}>` : '<!doctype>',
    }));
    const [first] = found;
    if (!first) return [];
    return [
      tell.markup(atSnippet('document', first.span), {
        tags: [...new Set(found.map(({ name }) => name))],
        spans: found.map(({ span }) => span),
      }),
    ];
  },
  says: ({ tags }) => ({
    message: `The paste has a document’s own ${tags.join(', ')}: the page has these already.`,
    notice:
      'Browsers leave them out; what hung on them, such as styles of its body, is not as it was.',
    cure: 'Take them out, and leave what stands inside.',
  }),
  mend: ({ spans }: Data): Intent[] =>
    spans.map((span) => ({ do: 'replace-text', span, text: '' })),
  brief: ({ tags }) => `${tags.join(', ')} inside the page`,
  samples: [{ tags: ['<html>', '<body>'], spans: [] }],
  examples: {
    faulty: [
      {
        name: 'a page as it was saved',
        code: '<!doctype html><html><head></head><body><p>Sow in May.</p></body></html>',
      },
    ],
    sound: [
      { name: 'a head of the page’s own', code: '<header><p>Sow in May.</p></header>' },
      {
        name: 'in a comment, and shown as code',
        code: '<!-- <body> --><p>Put it into the <code>&lt;body&gt;</code>.</p>',
      },
    ],
  },
});
