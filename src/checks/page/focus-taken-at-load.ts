import {
  defineCheck,
  makeSeen,
  type Case,
  type Fact,
  type RenderOf,
  type MarkupFact,
} from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import { findCall } from '../../core/measure/calls.js';
import { formatPixels } from '../../core/measure/units.js';
import { FRAMES } from '../../core/standards/elements.js';
import { atPart, atSnippet, blameElement } from '../../core/measure/blame.js';
import {
  getAttribute,
  getTagSpan,
  getValue,
  listAround,
  type Markup,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { tell } from '../../core/tell.js';

interface Data {
  /** What takes it; null where the page is scrolled, and nothing has the focus. */
  tag: string | null;
  how: 'attribute' | 'script' | 'frame' | 'scroll';
  element: number | null;
}

type Measured = { scrolled?: number };

type Needs = 'page' | 'elements';

/** Less of a scroll nobody notices, px. */
const STILL = 1;

const MEANS: Record<Data['how'], { by: string; cure: string }> = {
  attribute: { by: 'by `autofocus`', cure: 'Take `autofocus` out.' },
  script: { by: 'by a script', cure: 'Take the call of `focus()` at load out.' },
  frame: {
    by: 'by what stands in it',
    cure: 'Take `autofocus` or the call of `focus()` out of its document, or ask its maker to.',
  },
  scroll: {
    by: '',
    cure: 'Let the page stay at its top until the visitor scrolls or follows a link.',
  },
};

export default defineCheck({
  id: 'focus-taken-at-load',
  subject: 'page',
  level: 'concern',
  title: 'The snippet takes the focus at load',
  decided:
    'After load the focus is on an element of the snippet, or its code has scrolled the page, without a visitor’s action; from the markup alone, where an element has `autofocus`. Not in a dialog or a popover that is closed.',
  standard:
    'WCAG 2.2, 2.4.3 Focus Order and 3.2.1 On Focus; HTML Living Standard, 6.6.7 The autofocus attribute',
  needs: ['page', 'elements'],
  markup: true,
  judge: judgeRenders,
  unrendered: tellAutofocus,
  says: ({ tag, how }) => ({
    message: tag
      ? `The <${tag}> takes the focus ${MEANS[how].by} when the page loads.`
      : 'A script scrolls the page when it loads.',
    notice: tag
      ? 'The page jumps to it; on phones the keyboard opens; a screen reader begins there and not at the top.'
      : 'Visitors do not begin at the top, and look for what they came for.',
    cure: MEANS[how].cure,
  }),
  mend: ({ how, element }) =>
    how === 'attribute' && element !== null
      ? [{ do: 'remove-attribute', element, name: 'autofocus' }]
      : null,
  brief: ({ tag }) => (tag ? `<${tag}> takes the focus at load` : 'it scrolls the page at load'),
  measures: ({ scrolled }) => (scrolled ? `scrolled down by ${formatPixels(scrolled)}` : ''),
  samples: [
    { tag: 'input', how: 'attribute', element: null },
    { tag: 'input', how: 'script', element: null },
    { tag: 'iframe', how: 'frame', element: null },
    { tag: null, how: 'scroll', element: null },
  ],
  examples: {
    faulty: [
      {
        name: 'a field that asks for it',
        code: '<p><label>Seed <input name="seed" autofocus></label></p>',
      },
      {
        name: 'a script that scrolls to it',
        code: '<p id="seed">Sow in May.</p><script>addEventListener("load", () => seed.scrollIntoView())</script>',
      },
      {
        name: 'a script that gives it',
        code: '<p><label>Seed <input id="seed" name="seed"></label></p><script>document.getElementById("seed").focus();</script>',
      },
    ],
    sound: [
      {
        name: 'a script that scrolls when it is asked to',
        code: '<p id="seed">Sow in May.</p><button onclick="seed.scrollIntoView()">Where is it?</button>',
      },
      {
        name: 'a field that waits',
        code: '<p><label>Seed <input name="seed"></label></p>',
      },
      {
        name: 'one in a dialog that is closed',
        code: '<p>Order by letter.</p><dialog><label>Seed <input name="seed" autofocus></label></dialog>',
      },
    ],
  },
});

function tellAutofocus({ markup }: Case<Needs>): MarkupFact<Data>[] {
  const [first] = markup.elements.filter(
    (element) => getValue(element, 'autofocus') !== null && !isClosed(element),
  );
  return first ? [tellAttribute(first)] : [];
}

function tellAttribute(element: MarkupElement): MarkupFact<Data> {
  return tell.markup(atPart(element, 'autofocus', getAttribute(element, 'autofocus')!), {
    tag: element.name,
    how: 'attribute',
    element: element.offset,
  });
}

function isClosed(element: MarkupElement): boolean {
  for (const at of listAround(element)) {
    if (at.name === 'dialog' && getValue(at, 'open') === null) return true;
    if (getValue(at, 'popover') !== null || getValue(at, 'hidden') !== null) return true;
  }
  return false;
}

function judgeRenders({ markup, renders }: Case<Needs>): Fact<Data, Measured>[] {
  return flatMap(renders, (render): Fact<Data, Measured>[] => {
    const focused = render.elements.find(({ id }) => id === render.page.focused);
    if (!focused) return judgeScroll(markup, render);
    const blame = blameElement(markup, focused);
    const element = markup.elements.find(
      ({ offset }) => 'offset' in focused.from && offset === focused.from.offset,
    );
    const attribute = element && getAttribute(element, 'autofocus');
    const where = attribute ?? (element ? getTagSpan(element) : blame.where);
    const { offset, endOffset } = where;
    return [
      tell.seen(
        { ...blame, where: { offset, endOffset } },
        {
          tag: focused.tag,
          how: attribute ? 'attribute' : getHow(focused.tag),
          element: element?.offset ?? null,
        },
        makeSeen(render, {}),
        { group: '' },
      ),
    ];
  });
}

function getHow(tag: string): Data['how'] {
  return FRAMES.has(tag) ? 'frame' : 'script';
}

/** What scrolls, or lets the browser scroll. */
const SCROLLS = /\bscroll(IntoView|To|By|Top)?\b|\blocation\b|\bfocus\s*\(/;

/** The page is scrolled down, and is not so without the snippet. One that had to be stopped may have been scrolled to be read. */
function judgeScroll(markup: Markup, render: RenderOf<Needs>): Fact<Data, Measured>[] {
  const { page, baseline, partial } = render;
  if (!baseline || partial || page.scrolled <= baseline.scrolled + STILL) return [];
  const where = findCall(markup, SCROLLS);
  const data = { tag: null, how: 'scroll', element: null } as const;
  const seen = makeSeen(render, { scrolled: page.scrolled });
  return [tell.seen(atSnippet('scroll', where), data, seen)];
}
