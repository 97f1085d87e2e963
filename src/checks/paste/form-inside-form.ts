import { atSpan, atTag } from '../../core/measure/blame.js';
import { defineCheck, makeSeen, type Case, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { getElementFrom, type Markup, type MarkupElement } from '../../core/markup/markup.js';
import { matchTags } from '../../core/markup/unparsed.js';
import type { Span } from '../../core/snippet.js';
import { tell } from '../../core/tell.js';

interface Data {
  /** Around it stands a form of the host page's; else one of the snippet's own. */
  ofPage: boolean;
}

export default defineCheck({
  id: 'form-inside-form',
  subject: 'paste',
  level: 'blocker',
  title: 'A form stands inside another form',
  decided:
    'The snippet has a form, and its slot stands inside a form of the host page; or one of its forms begins inside another. The parser drops the inner tag.',
  standard: 'HTML Living Standard, 13.2.6.4.7 The “in body” insertion mode (form); 4.10.3',
  needs: ['slot'],
  markup: 'part',
  judge: (c) => [...judgeInside(c.markup), ...judgeRenders(c)],
  says: ({ ofPage }) => ({
    message: ofPage
      ? 'This form stands inside a form of the host page: browsers drop its tag.'
      : 'This form begins inside another one: browsers drop its tag.',
    notice:
      'Its fields are sent with the other form, to the wrong place; its button sends that form, and its end may end it.',
    cure: ofPage
      ? 'Put it into a slot outside of the page’s form, or into a frame.'
      : 'End the outer form before it, or make it one form.',
  }),
  brief: ({ ofPage }) => `a form inside ${ofPage ? 'the page’s form' : 'another form'}`,
  samples: [{ ofPage: true }, { ofPage: false }],
  examples: {
    faulty: [
      {
        name: 'a search inside an order',
        code: '<form action="/order"><label>Seed <input name="seed"></label><form action="/search"><label>Search <input name="q"></label></form></form>',
      },
    ],
    sound: [
      {
        name: 'one after the other',
        code: '<form action="/order"><label>Seed <input name="seed"></label></form><form action="/search"><label>Search <input name="q"></label></form>',
      },
      {
        name: 'one that is shown as code',
        code: '<form action="/order"><label>Seed <input name="seed"></label><!-- <form> --></form>',
      },
    ],
  },
});

function judgeInside(markup: Markup): Fact<Data>[] {
  return listDropped(markup).map((where) => tell.markup(atSpan(where), { ofPage: false }));
}

/** The form tags that the parser made no element of, inside a form. */
function listDropped(markup: Markup): Span[] {
  const forms = markup.elements.filter(({ name }) => name === 'form');
  return flatMap(matchTags(markup.text, /<form(?=[\s/>])[^>]*>/gi), (match) => {
    const span = { offset: match.index, endOffset: match.index + match[0].length };
    const dropped = getElementFrom(markup, span.offset) === null && !isInTag(markup, span);
    const inside = forms.some((one) => one.tagEnd <= span.offset && span.offset < one.endOffset);
    return dropped && inside ? [span] : [];
  });
}

function isInTag({ elements }: Markup, { offset }: Span): boolean {
  return elements.some((one) => one.offset < offset && offset < one.tagEnd);
}

function judgeRenders({ markup, renders }: Case<'slot'>): Fact<Data>[] {
  const forms = markup.elements.filter(({ name }) => name === 'form');
  return flatMap(
    renders.filter(({ slot }) => slot.inForm),
    (render) => forms.map((form) => tellHosted(form, [makeSeen(render, {})])),
  );
}

function tellHosted(form: MarkupElement, seen: Fact<Data>['seen']): Fact<Data> {
  return tell.seen(atTag(form), { ofPage: true }, seen);
}
