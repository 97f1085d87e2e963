import { atPart, atTag } from '../../core/measure/blame.js';
import { defineCheck, type Fact } from '../../core/check.js';
import { flatMap } from '../../core/lists.js';
import {
  isForeign,
  type Markup,
  type MarkupAttribute,
  type MarkupElement,
} from '../../core/markup/markup.js';
import { readStyleAttribute } from '../../core/markup/styles.js';
import type { Intent } from '../../core/mend/intent.js';
import {
  OBSOLETE_ATTRIBUTES,
  OBSOLETE_ELEMENTS,
  type Instead,
} from '../../core/standards/obsolete.js';
import { tell } from '../../core/tell.js';

interface Data {
  element: string;
  /** null where it is the element itself. */
  attribute: string | null;
  instead: string;
  mend: Intent[] | null;
}

export default defineCheck({
  id: 'obsolete-markup',
  subject: 'paste',
  level: 'advice',
  title: 'The markup is obsolete',
  decided:
    'An element, or an attribute of an element, that the HTML standard lists as non-conforming.',
  standard: 'HTML Living Standard, 16.2 Non-conforming features',
  needs: [],
  markup: true,
  judge: ({ markup }) =>
    flatMap(
      markup.elements.filter((element) => isListed(element) && !isForeign(element)),
      (element) => [...judgeElement(markup, element), ...judgeAttributes(markup, element)],
    ),
  says: ({ element, attribute, instead }) => ({
    message:
      attribute === null
        ? `The <${element}> is obsolete.`
        : `\`${attribute}\` of the <${element}> is obsolete.`,
    notice: 'Browsers still know it today; other tools, and styles of the page, may not.',
    cure: `Instead, ${instead}.`,
  }),
  mend: ({ mend }) => mend,
  brief: ({ element, attribute }) =>
    attribute === null ? `<${element}> is obsolete` : `${attribute} is obsolete`,
  samples: [
    {
      element: 'center',
      attribute: null,
      instead: 'write <div> with `text-align: center`',
      mend: null,
    },
    { element: 'td', attribute: 'bgcolor', instead: 'set `background-color: #eee`', mend: null },
  ],
  examples: {
    faulty: [
      { name: 'centred as of old', code: '<center>Seed swap in May</center>' },
      {
        name: 'a cell with a colour',
        code: '<table><tr><td bgcolor="#eeeeee">Beans</td></tr></table>',
      },
    ],
    sound: [
      { name: 'centred by CSS', code: '<div style="text-align: center">Seed swap in May</div>' },
      {
        name: 'a width where it belongs',
        code: '<table><tr><td><img src="https://static.rootcellar.example/beans.png" alt="Beans" width="40" height="30"></td></tr></table>',
      },
    ],
  },
});

/** Whether it can be obsolete, or have what is. */
function isListed({ name }: MarkupElement): boolean {
  return Object.hasOwn(OBSOLETE_ELEMENTS, name) || Object.hasOwn(OBSOLETE_ATTRIBUTES, name);
}

function judgeElement(markup: Markup, element: MarkupElement): Fact<Data>[] {
  const instead = getOwn(OBSOLETE_ELEMENTS, element.name);
  if (!instead) return [];
  return [
    tell.markup(atTag(element), {
      element: element.name,
      attribute: null,
      instead: nameInstead(instead, ''),
      mend: replaceElement(markup, element, instead),
    }),
  ];
}

function judgeAttributes(markup: Markup, element: MarkupElement): Fact<Data>[] {
  const known = getOwn(OBSOLETE_ATTRIBUTES, element.name);
  if (!known) return [];
  return flatMap(
    element.attributes.filter(({ name }) => Object.hasOwn(known, name)),
    (one) => judgeAttribute(markup, element, one, known),
  );
}

function judgeAttribute(
  markup: Markup,
  element: MarkupElement,
  attribute: MarkupAttribute,
  known: Readonly<Record<string, Instead>>,
): Fact<Data>[] {
  const { name, value, offset, endOffset } = attribute;
  const instead = getOwn(known, name);
  if (!instead || isConforming(element, attribute)) return [];
  return [
    tell.markup(
      atPart(element, name, { offset, endOffset }),
      {
        element: element.name,
        attribute: name,
        instead: nameInstead(instead, value),
        mend: replaceAttribute(markup, element, attribute, instead),
      },
      { group: name },
    ),
  ];
}

function getOwn<T>(table: Readonly<Record<string, T>>, key: string): T | null {
  return Object.hasOwn(table, key) ? table[key]! : null;
}

/** What the standard allows, or only warns of (16.1 Obsolete but conforming features). */
function isConforming(element: MarkupElement, { name, value }: MarkupAttribute): boolean {
  if (name === 'border' && element.name === 'table') return /^1?$/.test(value.trim());
  if (name === 'border' && element.name === 'img') return value.trim() === '0';
  if (name === 'language' && element.name === 'script') return /^javascript$/i.test(value.trim());
  return false;
}

function nameInstead({ element, styles, words }: Instead, value: string): string {
  const set = styles?.(value);
  const css =
    set &&
    Object.entries(set)
      .map(([name, to]) => `${name}: ${to}`)
      .join('; ');
  if (element) return `write <${element}>${css ? ` with \`${css}\`` : ''}`;
  return css ? `set \`${css}\`` : (words ?? 'do it with CSS');
}

/** Another name for both tags; null where one of them is not written. */
function replaceElement(
  { text }: Markup,
  element: MarkupElement,
  { element: name, styles }: Instead,
): Intent[] | null {
  if (!name) return null;
  const { offset, endOffset } = element;
  const end = text.slice(offset, endOffset).toLowerCase().lastIndexOf(`</${element.name}`);
  if (end < 0) return null;
  const length = element.name.length;
  const at = (from: number): Intent => ({
    do: 'replace-text',
    span: { offset: from, endOffset: from + length },
    text: name,
  });
  const set = styles?.('') ?? null;
  const declarations =
    set &&
    Object.entries(set)
      .map(([key, to]) => `${key}: ${to}`)
      .join('; ');
  // Beside a style of its own it would be a second one.
  if (declarations && element.attributes.some((one) => one.name === 'style')) return null;
  const after = offset + 1 + length;
  const style: Intent[] = declarations
    ? [
        {
          do: 'replace-text',
          span: { offset: after, endOffset: after },
          text: ` style="${declarations}"`,
        },
      ]
    : [];
  return [at(offset + 1), ...style, at(offset + end + 2)];
}

/** Changes no box: what does is for the findings about sizes, which try their cures. */
function isLookOnly([property, value]: [string, string]): boolean {
  return (
    /^(color|(background|border)-color|text-align|vertical-align)$/.test(property) ||
    (property === 'border' && value === '0')
  );
}

function replaceAttribute(
  markup: Markup,
  element: MarkupElement,
  { name, value }: MarkupAttribute,
  { styles, words }: Instead,
): Intent[] | null {
  const remove: Intent = { do: 'remove-attribute', element: element.offset, name };
  if (!styles) return words === 'leave it out' ? [remove] : null;
  const declarations = styles(value);
  if (!declarations || !Object.entries(declarations).every(isLookOnly)) return null;
  // A declaration counts for more than the attribute did: what is declared already stays.
  const known = new Set(readStyleAttribute(markup, element).map(({ property }) => property));
  const fresh = Object.entries(declarations).filter(([property]) => !known.has(property));
  const set: Intent = {
    do: 'set-style',
    element: element.offset,
    declarations: Object.fromEntries(fresh),
  };
  return fresh.length > 0 ? [remove, set] : [remove];
}
