import { describe, expect, test } from '@jest/globals';
import { judgeMarkup } from '../support/markup-only.js';
import { listMistaken } from '../../src/core/markup/mistaken.js';
import { readMarkup } from '../../src/core/markup/markup.js';

const list = (text: string) => {
  const markup = readMarkup(text);
  return listMistaken(markup).map(
    ({ offset, endOffset, instead }) => `${text.slice(offset, endOffset)} → ${instead}`,
  );
};

describe('what no browser takes is known without one', () => {
  test.each([
    ['<p style="backgroud: red">Sow</p>', 'backgroud: red → background: red'],
    ['<p style="colour:red">Sow</p>', 'colour:red → color: red'],
    ['<style>.a { Widht : 9px }</style>', 'Widht : 9px → width: 9px'],
    ['<p style="margin: 0 10 4px">Sow</p>', 'margin: 0 10 4px → margin: 0 10px 4px'],
    ['<p style="width: 10 !important">Sow</p>', 'width: 10 !important → width: 10px !important'],
    ['<style>@media print { .a { font-size: 1.5 } }</style>', 'font-size: 1.5 → font-size: 1.5px'],
  ])('%s', (text, found) => {
    expect(list(text)).toEqual([found]);
  });

  test.each([
    '<p style="margin: 0 0.0 10px; line-height: 1.4; z-index: 2; flex: 1; opacity: .5">Sow</p>',
    '<p style="anchor-name: --a; --widht: 10; -webkit-widht: 10px; corner-shape: bevel">Sow</p>',
    '<p style="width: calc(10px + 2); width: var(--a); height: attr(x)">Sow</p>',
    '<p style="width: 10; width: 10px">Sow</p>',
    '<svg><path style="stroke-width: 2" width="10" d="M0 0"/></svg>',
    '<p title="widht: 10px">colour: red; width: 10</p><script>a = { widht: 10, margin: 4 }</script>',
  ])('nothing is said of %s', (text) => {
    expect(list(text)).toEqual([]);
  });
});

describe('a frame as high as a part of what has no height', () => {
  const frame = (style: string, rest = '') =>
    `<iframe title="Map" style="border: 0; ${style}" src="https://maps.fernmap.example/embed/x"${rest}></iframe>`;
  const find = (text: string) => {
    const report = judgeMarkup(text);
    const found = report.findings.filter(({ id }) => id === 'frame-height-collapsed');
    return found.map(({ where, confirmed }) => [
      text.slice(where.offset, where.endOffset),
      confirmed,
    ]);
  };

  test.each([
    [frame('width: 100%; height: 100%'), 'height: 100%'],
    [frame('width: 100%', ' height="80%"'), 'height="80%"'],
    [`<div class="map">${frame('width: 100%; height: 50%')}</div>`, 'height: 50%'],
  ])('%s', (text, where) => {
    expect(find(text)).toEqual([[where, false]]);
  });

  test.each([
    frame('width: 100%; height: 300px'),
    frame('width: 100%'),
    frame('position: absolute; inset: 0; height: 100%'),
    `<div style="height: 300px">${frame('height: 100%')}</div>`,
    `<style>.map { aspect-ratio: 2 }</style><div class="map"><p>${frame('height: 100%')}</p></div>`,
    `<div style="display: flex">${frame('height: 100%')}</div>`,
    `<table><tr><td height="300">${frame('height: 100%')}</td></tr></table>`,
    `<div hidden>${frame('height: 100%')}</div>`,
    '<iframe title="Map" style="height: 100%"></iframe>',
  ])('may be right: %s', (text) => {
    expect(find(text)).toEqual([]);
  });
});
