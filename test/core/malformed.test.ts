import { expect, test } from '@jest/globals';
import { findAddressFaults } from '../../src/core/markup/malformed.js';

const AT = 7;
const WATCH = 'https://player.loam.example/watch';

/** The address as it is mended, and what was wrong with it. */
function mend(raw: string, player: boolean): [string, string] {
  const faults = findAddressFaults(raw, AT, player);
  let text = raw;
  for (const { offset, endOffset, put } of [...faults].reverse())
    text = text.slice(0, offset - AT) + put + text.slice(endOffset - AT);
  return [text, faults.map(({ what }) => what).join(' ')];
}

test.each([
  ['?a=1?b=2', '?a=1&amp;b=2', 'second-question'],
  ['??a=1', '?a=1', 'second-question'],
  ['?a=1&amp;b=2?c', '?a=1&amp;b=2&amp;c', 'second-question'],
  ['&amp;a=1&amp;b=2', '?a=1&amp;b=2', 'no-question'],
  ['&a=1?b=2', '?a=1&amp;b=2', 'no-question second-question'],
  ['?a=1"', '?a=1', 'quote'],
  ['?a=1’&b=2', '?a=1&b=2', 'quote'],
  ["?a='1", '?a=1', 'quote'],
  ['%22', '', 'quote'],
  ['?a=1 &b=2', '?a=1&b=2', 'space'],
  ['?a=sow beans', '?a=sow%20beans', 'space'],
  ['?a=1&b=2&a=3', '?a=1&b=2', 'twice'],
  ['?a=1&amp;a=2&amp;b=3#t=1', '?a=1&amp;b=3#t=1', 'twice'],
])('of a player %s is mended to %s', (given, mended, faults) => {
  expect(mend(WATCH + given, true)).toEqual([WATCH + mended, faults]);
});

test.each([
  ['', '?a=1&amp;b=2', '?a=1&a=1', '?a[]=1&a[]=2', '?a%5B%5D=1&a%5B%5D=2', '?&a=1', '?a=1&&b'],
  ['?url=https://seedlibrary.example/?p=1', '?url=/a?b=1', '?u=%2Fa?b=1', '?q=what?', '?q=a? b!'],
  ['/a&b=c/d', '/beans&peas', "?q=bean's", '?q=%22sow%22', "?q='sow'", '#a?b&c=d', '?a=1#x?y=2'],
])('sound are %s, %s and others', (...sound) => {
  const found = sound.map((one) => mend(WATCH + one, true)[1]).filter((one) => one !== 'space');
  expect(found.filter(Boolean)).toEqual([]);
});

test('of other frames several values of a parameter may be meant', () => {
  expect(mend(`${WATCH}?bed=1&bed=2`, false)[1]).toBe('');
});

test.each(['', ' \n', 'about:blank', 'data:text/html,a b', '{{ url }}', '“https://a.example/ b”'])(
  'what is no address has no faults: %s',
  (raw) => {
    expect(mend(raw, true)[1]).toBe('');
  },
);

test('white space around an address is none of it', () => {
  expect(mend(`\n  ${WATCH}?a=1  `, true)[1]).toBe('');
});
