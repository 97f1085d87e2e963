import { describe, expect, test } from '@jest/globals';
import { CHECKS } from '../../src/checks/index.js';
import { readMarkup } from '../../src/core/markup/markup.js';
import { applyEdits } from '../../src/core/mend/apply.js';
import { composeMend } from '../../src/core/mend/compose.js';
import { findProportion, mendHeight } from '../../src/core/mend/height.js';
import { judgeMarkup } from '../support/markup-only.js';

describe('another height', () => {
  const mend = (text: string) => {
    const markup = readMarkup(text);
    const frame = markup.elements.find(({ name }) => name === 'iframe')!;
    const edits = composeMend(markup, mendHeight(markup, frame, { height: '90px' }));
    return edits && applyEdits(text, edits);
  };

  test.each([
    ['<iframe>', '<iframe style="height: 90px">'],
    ['<iframe style="height: 100%">', '<iframe style="height: 90px">'],
    ['<iframe height="100%">', '<iframe height="100%" style="height: 90px">'],
    [
      '<style>iframe { height: 50% }</style><iframe>',
      '<style>iframe { height: 50% }</style><iframe style="height: 90px">',
    ],
    ['<iframe style="height: 50% !important">', '<iframe style="height: 90px !important">'],
  ])('%s', (text, mended) => {
    expect(mend(text)).toBe(mended);
  });

  test.each([
    '<style>iframe { height: 50% !important }</style><iframe>',
    '<iframe style="min-height: 20px">',
    '<iframe style="position: absolute; inset: 0; height: 100%">',
    '<iframe style="flex: 1">',
  ])('is none where something else decides: %s', (text) => {
    expect(mend(text)).toBeNull();
  });
});

test.each<[Record<string, string>, number | null, string]>([
  [{ width: '640', height: '360' }, null, '640 / 360'],
  [{ width: '640', height: '360' }, 1.777, '640 / 360'],
  [{ width: '640', height: '300' }, 1.777, '16 / 9'],
  [{ width: '100%', height: '300' }, null, '16 / 9'],
  [{}, 1.34, '4 / 3'],
  [{}, 2.05, '2.05'],
  [{ width: '640', height: '0' }, null, '16 / 9'],
])('the proportion that %j keeps with a film of %j is %s', (attributes, film, keeps) => {
  expect(findProportion(attributes, film)).toBe(keeps);
});

describe('a rule that fits the page too', () => {
  const check = CHECKS.filter(({ id }) => id === 'style-reaches-outside');
  const mend = (text: string) => judgeMarkup(text, check).mended;
  const box = (rules: string, around = '<div class="bed">', inside = '<p>Sow <em>now</em></p>') =>
    `<style>${rules}</style>${around}${inside}</div>`;

  test.each([
    ['p { color: red }', ':where(.bed) p { color: red }'],
    ['p em, .bed { top: 0 }', ':where(.bed) p em, .bed { top: 0 }'],
    ['@media print { p { top: 0 } }', '@media print { :where(.bed) p { top: 0 } }'],
  ])('is kept to what all stands in: %s', (rules, kept) => {
    expect(mend(box(rules))).toBe(box(kept));
  });

  test.each([
    box('div { color: red }'),
    box('body { color: red }'),
    box(':root p { color: red }'),
    box('blockquote { color: red }'),
    box('p { color: red }', '<div>'),
    box('p { color: red }', '<div class="{{ bed }}">'),
    `${box('p { color: red }')}<p>Sow</p>`,
    `${box('p { color: red }')}<script>document.body.append("p")</script>`,
  ])('is not where that would change what it is for: %s', (text) => {
    expect(mend(text)).toBeNull();
  });
});
