import { atPart } from '../../core/measure/blame.js';
import { defineCheck, makeSeen, type Case, type Fact, type Seen } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import {
  getAttribute,
  type Markup,
  type MarkupAttribute,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { tell } from '../../core/tell.js';

interface Data {
  id: string;
  /** The line of the first of the two; null where that is the host page's. */
  line: number | null;
}

export default defineCheck({
  id: 'id-used-twice',
  subject: 'paste',
  level: 'concern',
  title: 'An id is used twice',
  decided:
    'Two elements of the snippet have the same id, or one of its ids is also that of an element of the host page.',
  standard: 'HTML Living Standard, 3.2.6 Global attributes (id); DOM, 4.2.6',
  needs: ['host'],
  markup: 'part',
  judge: (c) => [...judgeInside(c.markup), ...judgeAgainstHost(c)],
  says: ({ id, line }) => ({
    message:
      line === null
        ? `The id “${id}” is also that of an element of the host page.`
        : `The id “${id}” is used for the second time: the first is in line ${line}.`,
    notice:
      'Links, labels, styles and scripts that mean one of the two find the other: a click jumps to the wrong place, or nothing happens.',
    cure: 'Give each element an id of its own, and change what points at it.',
  }),
  brief: ({ id }) => `the id “${id}” twice`,
  samples: [
    { id: 'beans', line: 1 },
    { id: 'beans', line: null },
  ],
  examples: {
    faulty: [
      {
        name: 'two parts of one name',
        code: '<p id="beans">Beans: sow in May.</p>\n<p id="beans">Beans: pick in August.</p>',
      },
    ],
    sound: [
      {
        name: 'two that differ by a capital letter',
        code: '<p id="beans">Sow in May.</p><p id="Beans">Pick in August.</p>',
      },
      {
        name: 'one that is shown as code',
        code: '<p id="beans">Sow in May.</p><p><code>&lt;p id="beans"&gt;</code></p>',
      },
    ],
  },
});

interface Identified {
  element: MarkupElement;
  attribute: MarkupAttribute;
}

function listIds({ elements }: Markup): Identified[] {
  return flatMap(elements, (element) => {
    const attribute = getAttribute(element, 'id');
    return attribute && attribute.value !== '' ? [{ element, attribute }] : [];
  });
}

function judgeInside(markup: Markup): Fact<Data>[] {
  const first = new Map<string, MarkupElement>();
  return flatMap(listIds(markup), ({ element, attribute }): Fact<Data>[] => {
    const before = first.get(attribute.value);
    if (!before) {
      first.set(attribute.value, element);
      return [];
    }
    const { line } = markup.place({ offset: before.offset, endOffset: before.tagEnd });
    return [tellTwice({ element, attribute }, line, [])];
  });
}

function judgeAgainstHost({ markup, renders }: Case<'host'>): Fact<Data>[] {
  const ids = listIds(markup);
  return flatMap(renders, (render) => {
    const taken = new Set(Object.values(render.baseline?.parts ?? {}).map(({ id }) => id));
    const clashing = ids.filter(({ attribute }) => taken.has(attribute.value));
    return clashing.map((one) => tellTwice(one, null, [makeSeen(render, {})]));
  });
}

function tellTwice(
  { element, attribute }: Identified,
  line: number | null,
  seen: Seen[],
): Fact<Data> {
  const { offset, endOffset, value } = attribute;
  return tell.seen(atPart(element, 'id', { offset, endOffset }), { id: value, line }, seen, {
    group: line === null ? 'host' : 'twice',
  });
}
