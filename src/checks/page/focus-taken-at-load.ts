import { defineCheck, makeSeen, type Case, type Fact } from '../../core/check.js';
import { blameElement } from '../../core/measure/blame.js';
import {
  getAttribute,
  getTagSpan,
  getValue,
  listAround,
  type MarkupElement,
} from '../../core/markup/markup.js';

interface Data {
  tag: string;
  /** By the attribute; else a script does it. */
  byAttribute: boolean;
  element: number | null;
}

type Needs = 'page' | 'elements';

export default defineCheck({
  id: 'focus-taken-at-load',
  subject: 'page',
  level: 'concern',
  title: 'The snippet takes the focus at load',
  decided:
    'After load the focus is on an element of the snippet, without a visitor’s action; from the markup alone, where an element has `autofocus`. Not in a dialog or a popover that is closed.',
  standard:
    'WCAG 2.2, 2.4.3 Focus Order and 3.2.1 On Focus; HTML Living Standard, 6.6.7 The autofocus attribute',
  needs: ['page', 'elements'],
  markup: true,
  judge: (c) => (c.renders.length === 0 ? judgeMarkup(c) : judgeRenders(c)),
  says: ({ tag, byAttribute }) => ({
    message: `The <${tag}> takes the focus ${byAttribute ? 'by `autofocus`' : 'by a script'} when the page loads.`,
    notice:
      'The page jumps to it; on phones the keyboard opens; a screen reader begins there and not at the top.',
    cure: byAttribute ? 'Take `autofocus` out.' : 'Take the call of `focus()` at load out.',
  }),
  mend: ({ byAttribute, element }) =>
    byAttribute && element !== null
      ? [{ do: 'remove-attribute', element, name: 'autofocus' }]
      : null,
  brief: ({ tag }) => `<${tag}> takes the focus at load`,
  samples: [
    { tag: 'input', byAttribute: true, element: null },
    { tag: 'input', byAttribute: false, element: null },
  ],
  examples: {
    faulty: [
      {
        name: 'a field that asks for it',
        code: '<p><label>Seed <input name="seed" autofocus></label></p>',
      },
      {
        name: 'a script that gives it',
        code: '<p><label>Seed <input id="seed" name="seed"></label></p><script>document.getElementById("seed").focus();</script>',
      },
    ],
    sound: [
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

function judgeMarkup({ markup }: Case<Needs>): Fact<Data>[] {
  const [first] = markup.elements.filter(
    (element) => getValue(element, 'autofocus') !== null && !isClosed(element),
  );
  return first ? [tellAttribute(first)] : [];
}

function tellAttribute(element: MarkupElement): Fact<Data> {
  const { offset, endOffset } = getAttribute(element, 'autofocus')!;
  return {
    where: { offset, endOffset },
    culprit: { at: 'element', offset: element.offset, part: 'autofocus' },
    confirmed: false,
    data: { tag: element.name, byAttribute: true, element: element.offset },
    seen: [],
  };
}

function isClosed(element: MarkupElement): boolean {
  for (const at of listAround(element)) {
    if (at.name === 'dialog' && getValue(at, 'open') === null) return true;
    if (getValue(at, 'popover') !== null || getValue(at, 'hidden') !== null) return true;
  }
  return false;
}

function judgeRenders({ markup, renders }: Case<Needs>): Fact<Data>[] {
  return renders.flatMap((render): Fact<Data>[] => {
    const focused = render.elements.find(({ id }) => id === render.page.focused);
    if (!focused) return [];
    const blame = blameElement(markup, focused);
    const element = markup.elements.find(
      ({ offset }) => 'offset' in focused.from && offset === focused.from.offset,
    );
    const attribute = element && getAttribute(element, 'autofocus');
    const where = attribute ?? (element ? getTagSpan(element) : blame.where);
    const { offset, endOffset } = where;
    return [
      {
        where: { offset, endOffset },
        culprit: blame.culprit,
        group: '',
        confirmed: true,
        data: {
          tag: focused.tag,
          byAttribute: Boolean(attribute),
          element: element?.offset ?? null,
        },
        seen: [makeSeen(render, {})],
      },
    ];
  });
}
