import { describe, expect, test } from '@jest/globals';
import { listAddresses } from '../../src/core/markup/addresses.js';
import { getLineStarts, getSpot } from '../../src/core/markup/lines.js';
import { getAttribute, getElementAt, getText, readMarkup } from '../../src/core/markup/markup.js';
import {
  listParsedElements,
  matchParsed,
  type Inserted,
  type ParsedElement,
} from '../../src/core/markup/match.js';
import { findDeclaration } from '../../src/core/markup/styles.js';
import { getTraits, joinTraits } from '../../src/core/markup/traits.js';

function insert(signatures: readonly string[], parents: readonly number[] = []): Inserted[] {
  return signatures.map((signature, i) => ({ signature, parent: parents[i] ?? -1 }));
}

describe('lines', () => {
  test.each([
    ['a\nbc', 2, { line: 2, column: 1 }],
    ['a\r\nbc', 4, { line: 2, column: 2 }],
    ['a\rb', 2, { line: 2, column: 1 }],
    ['abc', 3, { line: 1, column: 4 }],
  ])('%j at %i', (text, offset, expected) => {
    expect(getSpot(getLineStarts(text), { offset, endOffset: offset })).toMatchObject(expected);
  });
});

describe('markup', () => {
  const text =
    '<p>Sow <b>beans</b></p>\r\n<img  src=a.png ALT="Runner beans"\n hidden><table><tr><td>x</table>';
  const markup = readMarkup(text);

  test('elements stand in source order, with the places of their attributes', () => {
    expect(markup.elements.map(({ name }) => name)).toEqual(['p', 'b', 'img', 'table', 'tr', 'td']);
    const alt = getAttribute(markup.elements[2]!, 'alt')!;
    expect([text.slice(alt.offset, alt.endOffset), alt.value]).toEqual([
      'ALT="Runner beans"',
      'Runner beans',
    ]);
    expect(markup.place(alt)).toMatchObject({ line: 2, column: 17 });
    expect(getAttribute(markup.elements[2]!, 'hidden')).toMatchObject({ value: '' });
  });

  test('text is gathered from the inside', () => {
    expect(getText(markup.elements[0]!)).toBe('Sow beans');
  });

  test('what stands in noscript, comments and templates is not there', () => {
    const { elements } = readMarkup(
      '<noscript><img src=x></noscript><!-- <img> --><template><img src=y></template>',
    );
    expect(elements.map(({ name }) => name)).toEqual(['noscript', 'template']);
  });

  test('depth and attributes that are given twice do no harm', () => {
    expect(readMarkup('<div>'.repeat(20_000)).elements).toHaveLength(20_000);
    expect(readMarkup('<img alt=a alt=b>').elements[0]!.attributes).toHaveLength(1);
  });

  test('an offset is put down to the innermost element', () => {
    expect(getElementAt(markup, text.indexOf('beans'))?.name).toBe('b');
    expect(getElementAt(markup, text.indexOf('src'))?.name).toBe('img');
  });
});

describe('addresses a browser loads from by itself', () => {
  test.each([
    ['<img src="a.png" srcset="b.png 1x, c.png 2x">', ['a.png', 'b.png', 'c.png']],
    ['<link rel="stylesheet" href="s.css"><link rel="author" href="me.html">', ['s.css']],
    ['<a href="page.html">x</a><form action="send"></form>', []],
    [
      '<object data="o.svg"></object><video poster="p.png"><source src="v.mp4"></video>',
      ['o.svg', 'p.png', 'v.mp4'],
    ],
    ['<svg><use href="i.svg#x"/><image xlink:href="j.png"/></svg>', ['i.svg#x', 'j.png']],
  ])('%s', (text, expected) => {
    const found = listAddresses(readMarkup(text), 'https://www.seedlibrary.example/');
    expect(
      found.map(({ url }) => url.href.replace('https://www.seedlibrary.example/', '')),
    ).toEqual(expected);
  });
});

describe('the declaration that sets a property', () => {
  const find = (text: string, name: string, ...properties: string[]) => {
    const markup = readMarkup(text);
    const element = markup.elements.findLast((one) => one.name === name)!;
    const found = findDeclaration(markup, element, properties);
    return found && text.slice(found.offset, found.endOffset);
  };

  test.each([
    ['<p style="color:red; width: 90px">', 'width: 90px'],
    ['<style>p { width: 10px } #a { width: 20px }</style><p>', 'width: 10px'],
    ['<style>p { width: 10px }</style><p style="width:30px">', 'width:30px'],
    ['<style>p { width: 10px !important }</style><p style="width:30px">', 'width: 10px !important'],
    ['<style>p { width: 10px } @media print { p { width: 5px } }</style><p>', 'width: 10px'],
    ['<style>div > p, li { width: 7px }</style><div><p></div>', 'width: 7px'],
    ['<style>p:hover::before(( { width: 1px }</style><p>', null],
    ['<p>', null],
  ])('%s', (text, expected) => {
    expect(find(text, 'p', 'width')).toBe(expected);
  });

  test('with character references in the attribute the whole of it is meant', () => {
    expect(find('<p style="font: &quot;A&quot;; width: 9px">', 'p', 'width')).toBe(
      'style="font: &quot;A&quot;; width: 9px"',
    );
  });
});

const getOffsets = (parsed: readonly ParsedElement[], order: readonly Inserted[]) =>
  matchParsed(parsed, order).map((one) => one && one.offset);

describe('from the page back to the source', () => {
  const page = '<!doctype html><p class=a>x</p><table><tr><td>y</table><p class=a>z</p>';
  const parsed = listParsedElements(page);

  test('elements the parser adds count, at the place of what is inside', () => {
    expect(parsed.map(({ name }) => name)).toEqual([
      'html',
      'head',
      'body',
      'p',
      'table',
      'tbody',
      'tr',
      'td',
      'p',
    ]);
    expect(parsed[5]!.offset).toBe(page.indexOf('<tr>'));
  });

  test('what is made for an end tag alone stands where that does; what is opened again is of its first tag', () => {
    const text = '<div><p>Sow</p></p></br></div><a href=/b>Beds<div>x</div><ul><li>y</ul>';
    const [, , , ...rest] = listParsedElements(text);
    expect(rest.map(({ name, offset, again }) => [name, offset, again])).toEqual([
      ['div', 0, false],
      ['p', 5, false],
      ['p', 15, false],
      ['br', 15, false],
      ['a', text.indexOf('<a'), false],
      ['div', text.indexOf('<div>x'), false],
      ['ul', text.indexOf('<ul'), false],
      ['li', text.indexOf('<li'), false],
    ]);
    const open = '<div><a href=/b>Beds</div><p>x</p>';
    expect(
      listParsedElements(open).map(({ name, offset, again }) => [name, offset, again]),
    ).toEqual([
      ['html', 0, false],
      ['head', 0, false],
      ['body', 0, false],
      ['div', 0, false],
      ['a', 5, false],
      ['p', 26, false],
      ['a', 5, true],
    ]);
  });

  test('what scripts put in between is passed over', () => {
    const order = [
      'html',
      'head',
      'body',
      'p|class=a',
      'script-made',
      'table',
      'div|id=w',
      'tbody',
      'tr',
      'td',
      'p|class=a',
    ];
    expect(getOffsets(parsed, insert(order))).toEqual([
      ...parsed.slice(0, 4).map(({ offset }) => offset),
      null,
      page.indexOf('<table>'),
      null,
      page.indexOf('<tr>'),
      page.indexOf('<tr>'),
      page.indexOf('<td>'),
      page.lastIndexOf('<p'),
    ]);
  });

  test('an element whose attributes a script changed is known by its name; one that is gone is not missed', () => {
    const order = ['html', 'head', 'body', 'p|class=b', 'p|class=c'];
    expect(getOffsets(parsed, insert(order, [-1, 0, 0, 2, 2])).slice(3)).toEqual([
      page.indexOf('<p'),
      page.lastIndexOf('<p'),
    ]);
    expect(getOffsets(parsed, insert(['html', 'head', 'body']))).toEqual(
      parsed.slice(0, 3).map(({ offset }) => offset),
    );
  });
});

describe('telling the parser’s elements from a script’s', () => {
  const bulk = (n: number, signature: string, parent: number): Inserted[] =>
    Array.from({ length: n }, () => ({ signature, parent }));
  const HEAD = insert(['html', 'head', 'body'], [-1, 0, 0]);
  const after = '<p id=foot><i></i></p>';

  test('keeps step over any number of elements that a script makes', () => {
    const page = `<html><head></head><body><div></div>${after}`;
    const parsed = listParsedElements(page);
    const order = [
      ...HEAD,
      { signature: 'div', parent: 2 },
      ...bulk(3000, 'b', 3),
      { signature: 'p|id=foot', parent: 2 },
      { signature: 'i', parent: 3004 },
    ];
    const offsets = getOffsets(parsed, order);
    expect(offsets.slice(4, 3004).every((offset) => offset === null)).toBe(true);
    expect(offsets.slice(-2)).toEqual([page.indexOf('<p'), page.indexOf('<i')]);
  });

  test('of the same kind it is the one in the right place', () => {
    const page = '<html><head></head><body><div><p></p></div><div></div><p></p>';
    const order = [
      ...HEAD,
      { signature: 'div', parent: 2 },
      { signature: 'p', parent: 3 },
      // A script puts two more into the first block before the second comes.
      ...bulk(2, 'div', 3),
      { signature: 'div', parent: 2 },
      { signature: 'p', parent: 2 },
    ];
    const offsets = getOffsets(listParsedElements(page), order);
    expect(offsets.slice(5)).toEqual([
      null,
      null,
      page.lastIndexOf('<div'),
      page.lastIndexOf('<p'),
    ]);
  });

  test('what is gone does not take a later one’s place', () => {
    const page = `<html><head></head><body><b></b><u></u>${after}<b></b>`;
    const order = [...HEAD, ...insert(['u', 'p|id=foot', 'i', 'b'], [2, 2, 4, 2])];
    const offsets = getOffsets(listParsedElements(page), order);
    expect(offsets.slice(3)).toEqual([
      page.indexOf('<u'),
      page.indexOf('<p'),
      page.indexOf('<i'),
      page.lastIndexOf('<b'),
    ]);
  });
});

test('line breaks of all kinds count as one', () => {
  const text = '<p>\r<b>\r\n<i>\n<u>';
  const { elements, place } = readMarkup(text);
  expect(elements.map((element) => place(element).line)).toEqual([1, 2, 3, 4]);
});

describe('traits', () => {
  test.each([
    ['<p>x</p>', { changes: false, live: false, scrolls: false, media: false, script: null }],
    ['<p onclick="go()">x</p>', { changes: true, live: true, script: 0 }],
    [
      '<script type="application/ld+json">{}</script>',
      { changes: false, live: false, script: null },
    ],
    [
      '<iframe src="https://maps.fernmap.example/"></iframe>',
      { changes: false, live: true, scrolls: true },
    ],
    ['<iframe srcdoc="x"></iframe>', { changes: true }],
    ['<img loading="lazy" src="a.png">', { live: false, scrolls: true }],
    ['<video src="a.mp4"></video>', { media: true, live: false }],
    ['<seed-map></seed-map>', { live: false }],
  ])('%s', (text, expected) => {
    expect(getTraits(readMarkup(text))).toMatchObject(expected);
  });

  test.each<[string, boolean]>([
    ['<p class="bed" style="width: 100%">Sow</p>', true],
    ['<video src="a.mp4"></video><audio src="a.mp3"></audio>', true],
    ['<video><source src="a.mp4"></video>', true],
    ['<img src="a.png" autoplay>', true],
    ['<video src="a.mp4" autoplay></video>', false],
    ['<video><source src="a.mp4" media="(min-width: 600px)"></video>', false],
    ['<p media="print">Sow</p>', true],
    ['<img src="a.png" srcset="b.png 2x">', false],
    ['<img src="a.png" sizes="100vw">', false],
    ['<img src="a.png" loading="eager">', false],
    ['<input autofocus>', false],
    ['<picture><img src="a.png"></picture>', false],
    ['<link rel="stylesheet" href="a.css">', false],
    ['<template><p>Sow</p></template>', false],
    ['<style>p { transition: width 1s }</style><p>Sow</p>', false],
    ['<style>@media (min-width: 600px) { p { background: url(a.png) } }</style><p>Sow</p>', false],
    ['<style>@media (min-width: 600px) { p { width: 9px } }</style><p>Sow</p>', true],
    ['<iframe src="https://maps.fernmap.example/"></iframe>', false],
  ])('can be brought to another width instead of loaded anew: %s %s', (text, resizable) => {
    expect(getTraits(readMarkup(text)).resizable).toBe(resizable);
  });

  test.each<[string, boolean]>([
    ['<img src="a.png" srcset="b.png 2x">', true],
    ['<img src="a.png" sizes="100vw">', true],
    ['<picture><img src="a.png"></picture>', true],
    ['<img src="a.png">', false],
  ])('chooses what it loads: %s %s', (text, chooses) => {
    expect(getTraits(readMarkup(text)).chooses).toBe(chooses);
  });

  test.each<[string, boolean]>([
    ['<script>addEventListener("pointermove", go)</script>', true],
    ['<script src="/a.js"></script>', true],
    ['<script>go()</script>', false],
    ['<p onmouseover="go()">Sow</p>', true],
    ['<p data-mouse>Sow</p>', false],
    ['<script type="text/plain">addEventListener("mousemove", go)</script>', false],
  ])('code may wait for a mouse: %s %s', (text, points) => {
    expect(getTraits(readMarkup(text)).points).toBe(points);
  });

  test.each<[string, boolean]>([
    ['<iframe src="about:blank"></iframe>', false],
    ['<iframe></iframe>', false],
    ['<iframe src="/beds"></iframe>', true],
    ['<iframe src="//maps.fernmap.example/"></iframe>', false],
    ['<iframe src="HTTPS://maps.fernmap.example/"></iframe>', false],
    ['<embed src="/beds">', false],
    ['<div><template shadowrootmode="open"></template></div>', true],
    ['<a href="javascript:go()">Beds</a>', true],
    ['<a title="javascript:go()">Beds</a>', false],
  ])('has code of its own: %s %s', (text, changes) => {
    expect(getTraits(readMarkup(text)).changes).toBe(changes);
  });

  test('several can do what any of them can, and be brought to a width where all can', () => {
    const [plain, film, code] = [
      '<p>Sow</p>',
      '<video src="a.mp4"></video>',
      '<script>addEventListener("mousemove", go)</script>',
    ].map((text) => getTraits(readMarkup(text)));
    expect(joinTraits([plain!, film!])).toMatchObject({
      media: true,
      live: false,
      resizable: true,
    });
    expect(joinTraits([plain!, code!])).toMatchObject({
      ...{ changes: true, live: true, scrolls: true, points: true, resizable: false },
      script: null,
    });
    expect(joinTraits([code!])).toBe(code);
  });
});
