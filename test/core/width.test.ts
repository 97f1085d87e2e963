import { describe, expect, test } from '@jest/globals';
import { readMarkup } from '../../src/core/markup/markup.js';
import { holdsAt } from '../../src/core/markup/media.js';
import { applyEdits } from '../../src/core/mend/apply.js';
import { composeMend } from '../../src/core/mend/compose.js';
import { mendWidth } from '../../src/core/mend/width.js';
import { blameWidth, type Sized, type WidthWish } from '../../src/core/measure/blame-width.js';
import { cureWidth } from '../../src/core/words/width.js';

type Given = Partial<Sized['style']> & { wide?: number } & Partial<WidthWish>;

/** What is blamed for the last element of a code, why, what is said, and how it is mended. */
function blame(code: string, { wide = 640, by = 'box', side = 'right', ...style }: Given = {}) {
  const markup = readMarkup(code);
  const element = markup.elements.at(-1)!;
  const fact: Sized = {
    from: { offset: element.offset },
    selector: null,
    tag: element.name,
    box: { x: 0, y: 0, width: wide, height: 10 },
    style: {
      display: 'block',
      position: 'static',
      float: 'none',
      width: 'auto',
      minWidth: 'auto',
      maxWidth: 'none',
      overflowX: 'visible',
      ...style,
    },
  };
  const found = blameWidth(markup, fact, { by, side, room: 288, window: 320 });
  const mend = composeMend(markup, mendWidth(markup, found));
  return {
    at: code.slice(found.where.offset, found.where.endOffset),
    why: found.reason,
    cure: cureWidth(found),
    mended: mend && applyEdits(code, mend),
  };
}

describe('what makes an element too wide', () => {
  test.each<[string, string, Given, string, string]>([
    [
      'the least width before the width',
      '<p style="width: 100%; min-width: 600px">',
      { width: '100%', minWidth: '600px', wide: 600 },
      'min-width: 600px',
      'size',
    ],
    [
      'not a least width that is less',
      '<p style="min-width: 100px; width: 600px">',
      { width: '600px', minWidth: '100px', wide: 600 },
      'width: 600px',
      'size',
    ],
    [
      'not the rule for print',
      '<style>@media print { p { width: 900px } } p { width: 640px }</style><p>',
      { width: '640px' },
      'width: 640px',
      'size',
    ],
    [
      'the rule for this width',
      '<style>@media (max-width: 400px) { p { width: 640px } } @media (min-width: 900px) { p { width: 800px } }</style><p>',
      { width: '640px' },
      'width: 640px',
      'size',
    ],
    [
      'not a rule that another outdoes',
      '<style>img { width: 900px }</style><img width="640" style="width: auto">',
      { width: 'auto' },
      'width="640"',
      'size',
    ],
    [
      'no width of an inline element',
      '<span style="width: 900px; margin-right: -50px">',
      { display: 'inline', wide: 200 },
      'margin-right: -50px',
      'place',
    ],
    [
      'what pushes farthest',
      '<p style="margin-left: 8px; transform: translateX(55px)">',
      { wide: 280 },
      'transform: translateX(55px)',
      'place',
    ],
    [
      'not what pulls to the other side',
      '<p style="margin-left: -8px; left: 40px">',
      { wide: 280 },
      'left: 40px',
      'place',
    ],
    [
      'on the left what pulls there',
      '<p style="margin-left: -8px">',
      { wide: 280, side: 'left' },
      'margin-left: -8px',
      'place',
    ],
    [
      'padding that takes the room',
      '<p style="padding-left: 300px">',
      { wide: 320 },
      'padding-left: 300px',
      'room',
    ],
    [
      'text kept on one line by what is around',
      '<div style="white-space: nowrap"><p>Sow</p></div>'.replace('</p></div>', ''),
      { by: 'ink' },
      'white-space: nowrap',
      'text',
    ],
    ['a long word', '<p>Seedbankgenossenschaft', { by: 'ink' }, '<p>', 'text'],
    [
      'an animation',
      '<p style="animation: in 1s">',
      { wide: 280 },
      'animation: in 1s',
      'animation',
    ],
    ['the row', '<ul style="display: flex"><li>Beans', { wide: 90 }, 'display: flex', 'row'],
    [
      'the columns',
      '<div style="grid-template-columns: 300px 300px"><p>',
      { wide: 280 },
      'grid-template-columns: 300px 300px',
      'tracks',
    ],
    ['a field by its nature', '<input size="90">', {}, '<input size="90">', 'content'],
  ])('%s', (_name, code, given, at, why) => {
    expect(blame(code, given)).toMatchObject({ at, why });
  });

  test('what fills a parent that is too wide is not to blame for that', () => {
    const code = '<div style="width: 640px"><p style="width: 100%">x';
    expect(blame(code, { width: '100%' })).toMatchObject({ at: 'width: 640px', why: 'size' });
    const narrow = '<div style="width: 200px"><p style="width: 100%; padding: 90px">x';
    expect(blame(narrow, { width: '100%', wide: 380 })).toMatchObject({ at: 'width: 100%' });
  });

  test('of a table the cell', () => {
    const code = '<table><tr><td style="min-width: 500px">x</td></tr></table>';
    const markup = readMarkup(code);
    const style = {
      display: 'table',
      position: 'static',
      float: 'none',
      width: 'auto',
      minWidth: 'auto',
      maxWidth: 'none',
      overflowX: 'visible',
    };
    const fact = {
      from: { offset: 0 },
      selector: null,
      tag: 'table',
      box: { x: 0, y: 0, width: 520, height: 9 },
      style,
    };
    const found = blameWidth(markup, fact, { room: 288, window: 320 });
    expect(found).toMatchObject({ tag: 'td', reason: 'size', declaration: { value: '500px' } });
    expect(mendWidth(markup, found)).toBeNull();
  });
});

describe('a cure is offered only where it is certain', () => {
  test.each<[string, Given, string | null]>([
    [
      '<p style="width: 640px">',
      { width: '640px' },
      '<p style="width: 100%; max-width: 640px; box-sizing: border-box">',
    ],
    ['<p style="width: 640px; margin-left: 40px">', { width: '640px' }, null],
    ['<p style="width: 640px; position: absolute">', { width: '640px' }, null],
    [
      '<img style="width: 900px; height: 300px">',
      { width: '900px' },
      '<img style="width: 100%; height: auto; max-width: 900px; box-sizing: border-box; aspect-ratio: 900 / 300">',
    ],
    ['<svg width="900"></svg>', {}, null],
    [
      '<svg width="900" viewBox="0 0 9 9"></svg>',
      {},
      '<svg width="900" viewBox="0 0 9 9" style="max-width: 100%; height: auto; box-sizing: border-box"></svg>',
    ],
    ['<table><tr><td><img width="900">', {}, null],
    ['<p style="transform: translateX(90px)">', { wide: 200 }, null],
    [
      '<ul style="display: flex"><li>Beans',
      { wide: 90 },
      '<ul style="display: flex; flex-wrap: wrap"><li>Beans',
    ],
    ['<div style="display: flex"><p style="width: 900px"></p><p>b', { wide: 90 }, null],
    ['<pre>a b', { by: 'ink' }, '<pre style="overflow-x: auto">a b'],
    ['<p>Seedbank', { by: 'ink' }, '<p style="overflow-wrap: anywhere">Seedbank'],
    [
      '<iframe src="/player/x" style="width: 640px; height: 360px"></iframe>',
      { width: '640px' },
      '<iframe src="/player/x" style="width: 100%; height: auto; max-width: 640px; aspect-ratio: 640px / 360px; box-sizing: border-box"></iframe>'.replace(
        '640px / 360px',
        '640 / 360',
      ),
    ],
    [
      '<iframe src="/form" width="640" height="900"></iframe>',
      {},
      '<iframe src="/form" width="640" height="900" style="width: 100%; max-width: 640px; box-sizing: border-box"></iframe>',
    ],
  ])('%s', (code, given, mended) => {
    expect(blame(code, given).mended).toBe(mended);
  });
});

test('the cure names what is blamed, as CSS', () => {
  const said = (code: string, given: Given = {}) => blame(code, given).cure;
  expect(said('<p style="margin: 0 -30px">', { wide: 200 })).toMatch(/^Take `margin: 0 -30px` out/);
  expect(said('<p style="width: 640px">', { width: '640px' })).toContain(
    '`width: 100%; max-width: 640px`',
  );
  expect(said('<iframe width="560"></iframe>', { wide: 564 })).toContain('max-width: 560px');
  expect(said('<p style="width: 120%">', { width: '120%' })).toMatch(/^Take `width: 120%` out/);
  expect(said('<p style="white-space: nowrap">Sow', { by: 'ink' })).toMatch(
    /^Take `white-space: nowrap` out/,
  );
});

test.each<[string, number, boolean | null]>([
  ['print', 320, false],
  ['screen and (min-width: 600px)', 320, false],
  ['screen and (min-width: 600px)', 600, true],
  ['(max-width: 20em)', 320, true],
  ['(max-width: 20em)', 321, false],
  ['(width >= 400px)', 399, false],
  ['print, (min-width: 1px)', 320, true],
  ['(hover: hover)', 320, null],
  ['(hover: hover) and (min-width: 600px)', 320, false],
  ['not print', 320, null],
])('the condition %s at %i px', (query, width, holds) => {
  expect(holdsAt(query, width)).toBe(holds);
});
