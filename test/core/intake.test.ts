import { expect, test } from '@jest/globals';
import { takeFromCsv } from '../../src/core/intake/list.js';
import { takeFromMarkdown } from '../../src/core/intake/markdown.js';
import { readMarkup } from '../../src/core/markup/markup.js';

test.each<[string, number | undefined]>([
  ['```html\n<b>x</b>\n```\n', undefined],
  ['1. so\n\n   ```html\n   <b>x</b>\n   ```\n', 3],
  ['> so\n>\n> ```html\n> <b>x</b>\n> ```\n', 2],
  ['- ~~~html\n\n  <b>x</b>\n  ~~~\n', 2],
])('columns before a block: %j', (document, indent) => {
  expect(takeFromMarkdown(document).map((piece) => piece.indent)).toEqual([indent]);
});

test('places are those of the file that the text stands in', () => {
  const markup = readMarkup('<p>\n<b>x</b></p>', { line: 10, indent: 3 });
  const { offset, tagEnd } = markup.elements[1]!;
  expect(markup.place({ offset, endOffset: tagEnd })).toMatchObject({
    line: 11,
    column: 4,
    endLine: 11,
    endColumn: 7,
  });
});

/** A list as CSV, and of each record what is taken of it. */
test.each<[string, unknown[]]>([
  [
    'name,slot,code\nbeds,side,<p>Sow</p>\n,,<b>Reap</b>\n',
    [
      { name: 'beds', slot: 'side', text: '<p>Sow</p>', line: 2 },
      { name: null, slot: null, text: '<b>Reap</b>', line: 3 },
    ],
  ],
  ['Code ;Name\n"<p>\n""Sow""</p>";beds\n', [{ name: 'beds', text: '<p>\n"Sow"</p>', line: 2 }]],
  ['code\n<p>Sow</p>\n\n   \n<b>x</b>\n', [{ line: 2 }, { line: 5 }]],
  [
    'name,code\nbeds,\n',
    [{ message: expect.stringContaining('list.csv, line 2 ("beds"), has no code.') }],
  ],
])('a list: %j', (text, taken) => {
  expect(takeFromCsv(text, 'list.csv')).toMatchObject(taken);
});

test('a list without a column for the code says which it wants', () => {
  expect(() => takeFromCsv('name,html\nbeds,<p>\n', 'list.csv')).toThrow(
    'list.csv has no column `code`; its first line must name the columns name, slot and code.',
  );
});
