import { askFor } from '../../src/core/mend/attribute.js';
import { describe, expect, test } from '@jest/globals';
import { readMarkup } from '../../src/core/markup/markup.js';
import { applyEdits } from '../../src/core/mend/apply.js';
import { composeMend, composeMends } from '../../src/core/mend/compose.js';
import type { Intent } from '../../src/core/mend/intent.js';
import { editAttributes } from '../../src/core/mend/tag.js';

/** The text with these cures, and which of them are in it. */
function compose(text: string, ...cures: (Intent[] | null)[]) {
  const { edits, taken } = composeMends(readMarkup(text), cures);
  return [applyEdits(text, edits), taken] as const;
}

const style = (declarations: Record<string, string>, element = 0): Intent[] => [
  { do: 'set-style', element, declarations },
];
const set = (name: string, value: string | null = null): Intent[] => [
  { do: 'set-attribute', element: 0, name, value },
];
const remove = (name: string): Intent[] => [{ do: 'remove-attribute', element: 0, name }];
const replace = (offset: number, endOffset: number, text: string): Intent[] => [
  { do: 'replace-text', span: { offset, endOffset }, text },
];

const wrap = (element = 0): Intent[] => [
  { do: 'wrap', element, declarations: { 'overflow-x': 'auto' } },
];

test('what is put around an element is so only where that has an end of its own', () => {
  expect(compose('<table><td>x</table>y', wrap())).toEqual([
    '<div style="overflow-x: auto"><table><td>x</table></div>y',
    [true],
  ]);
  expect(compose('<table><td>x', wrap())).toEqual(['<table><td>x', [false]]);
  expect(compose('<p><b>x</b></p>', wrap(3), style({ width: '1px' }, 3))).toEqual([
    '<p><div style="overflow-x: auto"><b style="width: 1px">x</b></div></p>',
    [true, true],
  ]);
});

describe('one cure', () => {
  test.each<[string, Intent[], string]>([
    ['<img>', style({ width: '1px' }), '<img style="width: 1px">'],
    ['<br/>', style({ width: '1px' }), '<br style="width: 1px"/>'],
    ['<img alt=x >', style({ width: '1px' }), '<img alt=x style="width: 1px" >'],
    ['<img style="">', style({ width: '1px' }), '<img style="width: 1px">'],
    ['<img style="top:0;">', style({ width: '1px' }), '<img style="top:0; width: 1px">'],
    [
      "<img STYLE='top:0; width:9px /* so */; left:0'>",
      style({ width: '1px' }),
      "<img STYLE='top:0; width: 1px; left:0'>",
    ],
    [
      '<img style="width:9px!important">',
      style({ width: '1px' }),
      '<img style="width: 1px !important">',
    ],
    ['<img style=top:0>', style({ width: '1px' }), '<img style="top: 0; width: 1px">'],
    [
      '<img style="font-family: &quot;Loam&quot;">',
      style({ width: '1px' }),
      `<img style='font-family: "Loam"; width: 1px'>`,
    ],
    ['<video src=a>', set('muted'), '<video src=a muted>'],
    ['<img alt="">', set('alt', 'Beans & "peas"'), '<img alt=\'Beans &amp; "peas"\'>'],
    ['<a  b  c>', remove('b'), '<a   c>'],
    ['<a b>', remove('b'), '<a>'],
    ['<p>Sow', replace(6, 6, '</p>'), '<p>Sow</p>'],
  ])('%s', (text, intents, expected) => {
    expect(compose(text, intents)).toEqual([expected, [true]]);
  });

  test('what a person has to say is no edit, and what is not there is not cured', () => {
    const ask = askFor({ at: 'element', offset: 0 }, 'alt', 'What does it show?')!;
    for (const intents of [ask, [...set('alt', ''), ...ask], style({ top: '0' }, 7), []])
      expect(composeMend(readMarkup('<img>'), intents)).toBeNull();
    expect(compose('<img>', ask, set('alt', ''))).toEqual(['<img alt="">', [false, true]]);
  });
});

describe('several cures', () => {
  test('of one tag go into it together', () => {
    const text = '<video autoplay="no" src=a style="top: 0"></video>';
    expect(
      compose(text, set('muted'), style({ width: '1px' }), set('playsinline'), remove('autoplay')),
    ).toEqual([
      '<video src=a style="top: 0; width: 1px" muted playsinline></video>',
      [true, true, true, true],
    ]);
  });

  test('that want the same are one; of those that contradict each other the first counts', () => {
    const [a, b] = [style({ width: '1px', top: '0' }), style({ width: '2px', left: '0' })];
    expect(compose('<img>', a, a, b)).toEqual([
      '<img style="width: 1px; top: 0">',
      [true, true, false],
    ]);
    expect(compose('<img alt>', set('alt', 'a'), set('alt', 'b'), remove('alt'))).toEqual([
      '<img alt="a">',
      [true, false, false],
    ]);
    // A style that is written as a whole and one that is added to are not mixed.
    expect(compose('<img>', set('style', 'left: 0'), a)[1]).toEqual([true, false]);
    // Half of a cure is none.
    expect(compose('<img>', a, [...set('alt', ''), ...b])).toEqual([
      '<img style="width: 1px; top: 0">',
      [true, false],
    ]);
  });

  test('that touch one piece of text are not mixed', () => {
    const text = '<img allt="" style="top: 0">';
    const name = replace(5, 9, 'alt');
    expect(compose(text, name, name, style({ left: '0' }))).toEqual([
      '<img alt="" style="top: 0; left: 0">',
      [true, true, true],
    ]);
    expect(compose(text, replace(13, 18, 'x'), style({ left: '0' }))[1]).toEqual([true, false]);
    expect(compose(text, style({ left: '0' }), replace(13, 18, 'x'))[1]).toEqual([true, false]);
    expect(compose('<p>', replace(3, 3, 'a'), replace(3, 3, 'b'))[1]).toEqual([true, false]);
  });

  test('everything else stays, byte for byte', () => {
    const text = '\ufeff<P\r\n\tClass=a >\u00a0Sow <b>&nbsp;now</P><img\tsrc="a">\r\n';
    const at = text.indexOf('<img');
    const [mended] = compose(text, style({ width: '1px' }, at));
    expect(mended).toBe(text.replace('<img\tsrc="a">', '<img\tsrc="a" style="width: 1px">'));
  });
});

test('a tag that would read otherwise than is wanted is not written', () => {
  const markup = readMarkup('<p id="a">');
  const edit = (name: string) =>
    editAttributes(markup, markup.elements[0]!, {
      attributes: { [name]: { value: 'x' } },
      styles: {},
    });
  expect(edit('title')).toHaveLength(1);
  expect(edit('a b')).toBeNull();
  expect(
    editAttributes(markup, markup.elements[0]!, {
      attributes: {},
      styles: { top: '0; left: 1px' },
    }),
  ).toBeNull();
});
