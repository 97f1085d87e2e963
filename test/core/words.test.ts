import { describe, expect, test } from '@jest/globals';
import { getPrivateHostKind, isSpecialName } from '../../src/core/measure/private-address.js';
import { getSite, isThirdParty, matchesHost } from '../../src/core/measure/site.js';
import { formatBytes, formatPixels, parseBytes, parseTime } from '../../src/core/measure/units.js';
import { getNearest } from '../../src/core/words/nearest.js';
import { joinWords } from '../../src/core/words/list.js';
import { clean } from '../../src/formats/clean.js';
import { makeCodeFrame } from '../../src/formats/code-frame.js';

describe('addresses that are not of the public web', () => {
  test.each([
    '127.0.0.1',
    '127.9.9.9',
    'localhost',
    'desk.localhost',
    '[::1]',
    '10.1.2.3',
    '172.16.0.1',
    '192.168.4.20',
    '169.254.169.254',
    '100.64.0.1',
    '198.18.0.1',
    '0.0.0.0',
    '224.0.0.1',
    '255.255.255.255',
    '[fd00::1]',
    '[fe80::1]',
    '[::ffff:10.0.0.1]',
    '[64:ff9b::a00:1]',
  ])('%s', (host) => {
    expect(getPrivateHostKind(host)).toMatch(/^an? /);
  });

  test.each([
    '8.8.4.4',
    '172.32.0.1',
    '198.20.0.1',
    '[2606:4700::1111]',
    'static.rootcellar.example',
    '[::ffff:8.8.4.4]',
  ])('not %s', (host) => {
    expect(getPrivateHostKind(host)).toBeNull();
  });

  test('names that the standards set aside are never looked up', () => {
    expect(['a.example', 'x.test', 'y.invalid', 'localhost'].every(isSpecialName)).toBe(true);
    expect(isSpecialName('example.org')).toBe(false);
  });
});

describe('hosts', () => {
  test('sites and patterns', () => {
    expect(getSite('a.b.fernmap.example')).toBe('fernmap.example');
    expect(getSite('127.0.0.1')).toBe('127.0.0.1');
    expect(isThirdParty('cdn.seedlibrary.example', 'https://www.seedlibrary.example')).toBe(false);
    expect(isThirdParty('fernmap.example', 'https://www.seedlibrary.example')).toBe(true);
    expect(matchesHost('*.fernmap.example', 'maps.FERNMAP.example')).toBe(true);
    expect(matchesHost('*.fernmap.example', 'fernmap.example')).toBe(false);
    expect(matchesHost('*', 'anything')).toBe(true);
  });
});

describe('units', () => {
  test.each([
    ['150kB', 150_000],
    ['1.5 MiB', 1_572_864],
    ['12', 12],
    ['1e3', null],
    ['kB', null],
  ])('%s', (text, expected) => {
    expect(parseBytes(text)).toBe(expected);
  });

  test('for a reader', () => {
    expect([parseTime('1.5s'), parseTime('20')]).toEqual([1500, 20]);
    expect([
      formatBytes(812),
      formatBytes(152_400),
      formatBytes(999_960),
      formatBytes(150_000),
    ]).toEqual(['812 B', '152.4 kB', '1 MB', '150 kB']);
    expect([formatPixels(12), formatPixels(12.345)]).toEqual(['12 px', '12 px']);
    expect([joinWords([]), joinWords(['a']), joinWords(['a', 'b', 'c'])]).toEqual([
      '',
      'a',
      'a, b and c',
    ]);
  });
});

test('the nearest word, or none', () => {
  expect(getNearest('colunm', ['sidebar', 'column'])).toBe('column');
  expect(getNearest('xyz', ['sidebar', 'column'])).toBeNull();
});

describe('the source line with its caret', () => {
  const where = (text: string, piece: string) => {
    const offset = text.indexOf(piece);
    const line = text.slice(0, offset).split('\n').length;
    return {
      offset,
      endOffset: offset + piece.length,
      line,
      column: 1,
      endLine: line,
      endColumn: 1,
    };
  };

  test.each([
    ['<p>\n  <img src="x">\n', '<img src="x">', 80, '  <img src="x">', '  ^^^^^^^^^^^^^'],
    ['<b>豆</b><i>', '<i>', 80, '<b>豆</b><i>', '         ^^^'],
    ['\t<i>', '<i>', 80, ' <i>', ' ^^^'],
    ['<a>\u001b</a><i>', '<i>', 80, '<a>␛</a><i>', '        ^^^'],
  ])('%j', (text, piece, room, source, caret) => {
    expect(makeCodeFrame(text, where(text, piece), room)).toMatchObject({ source, caret });
  });

  test('a long line is cut on both sides, the piece kept in sight', () => {
    const text = `${'a'.repeat(100)}<i>${'b'.repeat(100)}`;
    const { source, caret } = makeCodeFrame(text, where(text, '<i>'), 30);
    expect(source).toMatch(/^…a+<i>b+…$/);
    expect(source.indexOf('<i>')).toBe(caret.indexOf('^'));
    expect(source.length).toBeLessThanOrEqual(32);
  });
});

test('text of a snippet is made harmless for a terminal', () => {
  expect(clean('a\u001b]0;x\u0007\u202eb\u009b31m\r\nc\td')).toBe(
    'a␛]0;x␇[right-to-left override]b[U+009B]31m\nc\td',
  );
});
