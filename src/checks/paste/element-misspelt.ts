import { atTag } from '../../core/measure/blame.js';
import { defineCheck, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import type { Markup, MarkupElement } from '../../core/markup/markup.js';
import type { Intent } from '../../core/mend/intent.js';
import { HTML_ELEMENTS, isElementName } from '../../core/standards/names.js';
import { tell } from '../../core/tell.js';
import { findSlip } from '../../core/words/slip.js';

interface Data {
  written: string;
  meant: string;
  element: number;
}

export default defineCheck({
  id: 'element-misspelt',
  subject: 'paste',
  level: 'blocker',
  title: 'An element’s name is misspelt',
  decided:
    'A name that is no element of HTML, SVG or MathML, has no hyphen, and is one small edit away from one (two edits from eight letters on; under five letters only a swap).',
  standard: 'HTML Living Standard, 13.1.2 Elements',
  needs: [],
  markup: true,
  // What the element was to do it does not: that ends with it.
  explains: [
    { findings: ['nothing-rendered'], anywhere: true, fits: () => true },
    { findings: ['tag-left-open'], anywhere: true, fits: isOfElement },
  ],
  judge: (c): Fact<Data>[] =>
    flatMap(c.markup.elements, (element): Fact<Data>[] => {
      const meant = findMeant(element);
      if (meant === null) return [];
      const start = element.offset + 1;
      return [
        tell.markup(atTag(element, { offset: start, endOffset: start + element.name.length }), {
          written: element.name,
          meant,
          element: element.offset,
        }),
      ];
    }),
  says: ({ written, meant }) => ({
    message: `There is no element <${written}>; did you mean <${meant}>?`,
    notice: 'The browser makes nothing of it: what it was to show, play or load is not there.',
    cure: `Write \`<${meant}>\`.`,
  }),
  mend: ({ meant }, { culprit }, markup) =>
    culprit.at === 'element' ? rename(markup, culprit.offset, meant) : null,
  brief: ({ written }) => `there is no element <${written}>`,
  samples: [{ written: 'ifram', meant: 'iframe', element: 0 }],
  examples: {
    faulty: [
      { name: 'a letter too few', code: '<p>Sow in May.</p><sectio><p>Water well.</p></sectio>' },
      { name: 'letters swapped', code: '<p>Sow in <sapn>May</sapn>.</p>' },
    ],
    sound: [
      { name: 'an element of one’s own', code: '<seed-box><p>Sow in May.</p></seed-box>' },
      {
        name: 'drawing and formula',
        code: '<svg width="9" height="9" viewBox="0 0 9 9" aria-hidden="true"><circle r="4" cx="4" cy="4"/></svg><p>Sow <math><mi>n</mi></math> seeds</p>',
      },
    ],
  },
});

function isOfElement({ where }: Fact<unknown>, { element }: Data): boolean {
  return where.offset === element;
}

function findMeant({ name }: MarkupElement): string | null {
  const own = isElementName(name) || !/^[a-z][a-z0-9]*$/.test(name);
  return own ? null : findSlip(name, HTML_ELEMENTS);
}

/** In its start tag, and in its end tag where it has one. */
function rename({ text, elements }: Markup, offset: number, meant: string): Intent[] | null {
  const element = elements.find((one) => one.offset === offset);
  if (!element) return null;
  const length = element.name.length;
  const put = (at: number): Intent => ({
    do: 'replace-text',
    span: { offset: at, endOffset: at + length },
    text: meant,
  });
  const end = /<\/([^\s>]*)[^>]*>$/.exec(text.slice(element.tagEnd, element.endOffset));
  const closes = end?.[1]?.toLowerCase() === element.name;
  return [put(offset + 1), ...(closes ? [put(element.tagEnd + end!.index + 2)] : [])];
}
