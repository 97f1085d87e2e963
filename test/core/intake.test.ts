import { expect, test } from '@jest/globals';
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
