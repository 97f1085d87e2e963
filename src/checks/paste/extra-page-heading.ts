import { atTag } from '../../core/measure/blame.js';
import { defineCheck, makeSeen, type Case, type Fact, type MarkupFact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { isReadWithPage } from '../../core/measure/inserts.js';
import type { Baseline } from '../../core/evidence.js';
import { isHidden } from '../../core/markup/hidden.js';
import { type Markup, type MarkupElement } from '../../core/markup/markup.js';
import { tell } from '../../core/tell.js';

interface Data {
  /** The page has a heading of its own; else the snippet has several. */
  ofPage: boolean;
}

export default defineCheck({
  id: 'extra-page-heading',
  subject: 'paste',
  level: 'concern',
  title: 'The page gets a second main heading',
  decided:
    'The snippet has an h1 where the host page has one of its own, or has several. Without a render the page is taken to have one where the slot’s `headingLevel` is 2 or more.',
  standard: 'HTML Living Standard, 4.3.6 The h1–h6 elements; WCAG 2.2, 1.3.1',
  needs: ['host'],
  markup: true,
  judge: (c) => (isReadWithPage(c.house) ? judgeRenders(c) : []),
  unrendered: (c) => (isReadWithPage(c.house) ? tellHeadings(c) : []),
  says: ({ ofPage }) => ({
    message: ofPage
      ? 'This is a main heading (h1), and the page has one already.'
      : 'This is a second main heading (h1).',
    notice:
      'Screen readers and search engines take it for the title of the page; who goes by headings loses the way.',
    cure: 'Make it a heading of the level that fits there, such as h2.',
  }),
  brief: () => 'a second h1 on the page',
  samples: [{ ofPage: true }, { ofPage: false }],
  examples: {
    faulty: [
      { name: 'a heading as on a page of its own', code: '<h1>Spring sowing</h1><p>In May.</p>' },
    ],
    sound: [
      { name: 'a heading of the next level', code: '<h2>Spring sowing</h2><p>In May.</p>' },
      { name: 'one that is not there', code: '<h1 hidden>Spring sowing</h1><p>In May.</p>' },
    ],
  },
});

function listHeadings(markup: Markup): MarkupElement[] {
  return markup.elements.filter((one) => one.name === 'h1' && !isHidden(markup, one));
}

function tellHeadings({ markup, house }: Case<never>): MarkupFact<Data>[] {
  const ofPage = house.slots.every(({ headingLevel }) => headingLevel > 1);
  const headings = listHeadings(markup).slice(ofPage ? 0 : 1);
  return headings.map((element) => tell.markup(atTag(element), { ofPage }));
}

function judgeRenders({ markup, renders }: Case<'host'>): Fact<Data>[] {
  const headings = listHeadings(markup);
  return flatMap(renders, (render) => {
    const ofPage = hasHeading(render.baseline);
    const extra = headings.slice(ofPage ? 0 : 1);
    const seen = makeSeen(render, {});
    return extra.map((element) => tell.seen(atTag(element), { ofPage }, seen));
  });
}

function hasHeading(baseline: Baseline | null): boolean {
  return Object.values(baseline?.parts ?? {}).some(({ tag, shown }) => tag === 'h1' && shown);
}
