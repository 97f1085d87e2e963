import { describe, expect, test } from '@jest/globals';
import type { Evidence } from '../../src/core/evidence.js';
import { getDefaultHouse } from '../../src/core/house/read.js';
import { filterCode } from '../../src/core/markup/filter-code.js';
import { listAlterations } from '../../src/core/markup/filtered.js';
import { readMarkup } from '../../src/core/markup/markup.js';
import { getContrast, getLeastContrast } from '../../src/core/measure/contrast.js';
import { listFrameFits } from '../../src/core/measure/frame-fit.js';
import { planRenders } from '../../src/core/plan.js';
import { makeLost } from '../../src/render/bounds/lost.js';
import { parseHeight } from '../../src/render/in-page/posted.js';

describe('contrast', () => {
  test.each<[string, string, number]>([
    ['#000000', '#ffffff', 21],
    ['#777777', '#ffffff', 4.48],
    ['#ffffff', '#767676', 4.54],
    ['#123456', '#123456', 1],
  ])('%s on %s is %d', (a, b, ratio) => {
    expect(getContrast(a, b)).toBeCloseTo(ratio, 2);
    expect(getContrast(b, a)).toBeCloseTo(ratio, 2);
  });

  test('large letters need less', () => {
    const need = (size: number, bold: boolean) => getLeastContrast({ size, bold });
    expect([need(24, false), need(23.9, false), need(18.66, true), need(18.6, true)]).toEqual([
      3, 4.5, 3, 4.5,
    ]);
  });
});

test.each<[unknown, number | null]>([
  [{ height: 516 }, 516],
  [{ type: 'resize', size: { docHeight: '516px' } }, 516],
  [{ h: 300 }, 300],
  ['{"event":"size","height":240}', 240],
  ['[frame]1:320:height:240', 240],
  ['resize 512', 512],
  ['480px', 480],
  [700, 700],
  ['hello 2027', null],
  [{ ready: true, width: 320 }, null],
  [{ height: 0 }, null],
  [{ height: 9e9 }, null],
  ['{"height": ', null],
  [null, null],
])('%j tells a height of %s', (data, height) => {
  expect(parseHeight(data)).toBe(height);
});

describe('what a site does to code', () => {
  const FILTER = { remove: ['script', '@on*', '@style'], wrapLinesIn: 'p', maxLength: 120 };
  const list = (text: string) =>
    listAlterations(readMarkup(text), FILTER).map(
      ({ what, name, where }) =>
        `${what} ${name} ${text.slice(where.offset, where.endOffset).replace(/\n/g, '↵')}`,
    );

  test.each<[string, string[]]>([
    [
      '<p onclick="a()" style="color: red">Sow</p>',
      ['attribute onclick onclick="a()"', 'attribute style style="color: red"'],
    ],
    ['<script>1</script>', ['element script <script>']],
    ['<p>Sow\nthinly</p>', ['break br <p>Sow↵']],
    ['<p>\nSow\n</p>\n<ul>\n<li>a\n<li>b\n</ul>', []],
    ['Sow\n\nWait', ['paragraph p Sow', 'paragraph p Wait']],
    ['<!-- x --> <b>Sow</b> <div></div>', ['paragraph p <!-- x -->']],
    ['<!-- x --> <div>Sow</div>', []],
    ['<pre>a\nb</pre><textarea>a\nb</textarea>', []],
    [`<p>${'x'.repeat(130)}</p>`, [`cut  ${'x'.repeat(13)}</p>`]],
  ])('%j', (text, found) => {
    expect(list(text)).toEqual(found);
  });
});

describe('the code that a site keeps', () => {
  const FILTER = { remove: ['script', '@on*'], wrapLinesIn: 'p', maxLength: 60 };

  test.each<[string, string]>([
    ['<p onclick="a()">Sow</p>', '<p >Sow</p>'],
    ['<script>if (1)\nif (2)\n3</script>Sow\nnow', '<p>Sow<br>\nnow</p>'],
    ['Sow <b>a\n\nb</b>\n\n<i onclick="">c</i>', '<p>Sow <b>a\n\nb</b></p>\n\n<p><i >c</i></p>'],
    [`<p>Sow</p>${'x'.repeat(60)}`, `<p>Sow</p><p>${'x'.repeat(50)}`],
  ])('%j', (text, kept) => {
    const code = filterCode(readMarkup(text), FILTER);
    expect(code.text).toBe(kept);
    // Whatever the site did not put in stands in the source.
    const stands = [...kept].filter((char, i) => {
      const at = code.getSource(i);
      return at === null || text[at] === char;
    });
    expect(stands.join('')).toBe(kept);
    expect(code.getSource(kept.indexOf('x'))).toBe(text.includes('xx') ? 10 : null);
  });
});

describe('the height that fits a frame', () => {
  const TEXT = '<iframe title="Order" style="height: 100px"></iframe>';
  const house = getDefaultHouse();

  /** What is told of a frame 100 px high whose document has these heights by itself, a window each. */
  function fit(naturals: (number | null | undefined)[], attributes: Record<string, string> = {}) {
    const markup = readMarkup(TEXT);
    const renders = planRenders('x', house, house);
    const evidence = naturals.map((natural, i): Evidence => {
      const one = makeLost(renders[i]!, 0, '');
      const inner = {
        width: 288,
        height: 100,
        scrollWidth: 288,
        scrollHeight: 100,
        contentHeight: 100,
      };
      one.frames = [
        {
          id: 1,
          tag: 'iframe',
          from: { offset: 0 },
          selector: null,
          box: { x: 0, y: 0, width: 288, height: 100 },
          shown: true,
          exposed: true,
          style: {
            display: '',
            position: '',
            float: '',
            width: '',
            minWidth: '',
            maxWidth: '',
            overflowX: '',
          },
          address: '',
          attributes: { title: 'Order', ...attributes },
          border: 0,
          inner: natural === undefined ? inner : { ...inner, natural },
        },
      ];
      return one;
    });
    return listFrameFits(markup, evidence)[0]!;
  }

  test('goes by the window, and between two windows by the greater', () => {
    const { css, fits, by } = fit([300, 200, 120]);
    expect([fits, by]).toEqual([false, 'content']);
    expect(css).toBe(
      'iframe[title="Order"] { height: 300px; }\n' +
        '@media (min-width: 390px) { iframe[title="Order"] { height: 200px; } }\n' +
        '@media (min-width: 768px) { iframe[title="Order"] { height: 120px; } }',
    );
  });

  test('outdoes a style of its own, and is found by its id', () => {
    expect(fit([300], { id: 'o.1', style: 'height: 9px' }).css).toBe(
      '#o\\.1 { height: 300px !important; }',
    );
  });

  test('is not invented for what fills whatever it gets, nor for what fits', () => {
    expect(fit([null, null])).toMatchObject({ by: 'nothing', css: null, fits: true });
    expect(fit([undefined])).toMatchObject({ by: 'content', css: null, fits: true });
    expect(fit([95])).toMatchObject({ fits: true });
  });

  test('of a player is its proportion', () => {
    const talk = { allow: 'autoplay; fullscreen', width: '560', height: '315' };
    expect(fit([undefined], talk)).toMatchObject({
      by: 'proportion',
      css: 'iframe[title="Order"] { width: 100%; height: auto; aspect-ratio: 560 / 315; }',
    });
  });
});
