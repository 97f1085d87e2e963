import { expect, test } from '@jest/globals';
import { clean, cleanLine, escapeJson } from '../../src/formats/clean.js';

test.each([
  ['\u001b[2J\u0007', '\u241b[2J\u2407'],
  ['a\u007fb\u0085c', 'a\u2421b[U+0085]c'],
  ['sr\u200bc', 'sr[zero width space]c'],
  ['\ufeff<p>', '[zero width no-break space]<p>'],
  ['\u202ex\u2066y', '[right-to-left override]x[left-to-right isolate]y'],
  ['al\u00adt', 'al[soft hyphen]t'],
  ['a\u200db', 'a[zero width joiner]b'],
  ['\u2063', '[U+2063]'],
  ['\u{1f469}\u200d\u{1f33e} at work', '\u{1f469}\u200d\u{1f33e} at work'],
  ['caf\u00e9\u00a0\u2014 \u05d0', 'caf\u00e9\u00a0\u2014 \u05d0'],
  ['a\r\nb\rc', 'a\nb\nc'],
])('%j is shown as %j', (text, shown) => {
  expect(clean(text)).toBe(shown);
});

test('a line has no breaks, and JSON says the same when it is escaped', () => {
  expect(cleanLine(' a\n\u001bb ')).toBe('a \u241bb');
  const json = JSON.stringify({ text: '\u001b\u009b\u202e\u200b\ufeff\u00e9' });
  expect(escapeJson(json)).toMatch(/^[\x20-\x7e\u00e9]+$/);
  expect(JSON.parse(escapeJson(json))).toEqual(JSON.parse(json));
});
