import { expect, test } from '@jest/globals';
import type { Culprit } from '../../src/core/check.js';
import { listFindingKeys, type Keyed } from '../../src/core/judge/keys.js';

const TEXT = '<img src="a.png">\n<p>Sow</p><img src="a.png"><img\n  src="b.png">';

/** A finding at the nth place where a piece of the text stands. */
function at(
  text: string,
  piece: string,
  n = 0,
  more: Partial<Keyed['fact']> & { id?: string } = {},
) {
  let offset = text.indexOf(piece);
  for (let i = 0; i < n; i++) offset = text.indexOf(piece, offset + 1);
  const { id = 'picture-without-alt', ...rest } = more;
  const where = { offset, endOffset: offset + piece.length };
  return { id, fact: { where, culprit: { at: 'element', offset } as Culprit, ...rest } };
}

const PIECE = '<img src="a.png">';
const keysOf = (text: string, ...all: Keyed[]) => listFindingKeys(text, all);

test('a key stays where other code is put in before it, and white space changes', () => {
  const before = keysOf(TEXT, at(TEXT, PIECE), at(TEXT, '<img\n  src="b.png">'));
  const moved = `<h2>Beds</h2>\n\n${TEXT.replace('<img\n  src="b', '<img src="b')}`;
  expect(keysOf(moved, at(moved, PIECE), at(moved, '<img src="b.png">'))).toEqual(before);
  for (const key of before) expect(key).toMatch(/^[0-9a-f]{16}$/);
});

test('what is alike is told apart by its order in the source, in whatever order it is told', () => {
  const [first, second] = [at(TEXT, PIECE), at(TEXT, PIECE, 1)];
  const [a, b] = keysOf(TEXT, first, second);
  expect(a).not.toBe(b);
  expect(keysOf(TEXT, second, first)).toEqual([b, a]);
});

test('what differs in anything else has another key', () => {
  const culprit: Culprit = { at: 'snippet', what: 'request https://tally.example/a.js' };
  const offset = TEXT.indexOf(PIECE);
  const keys = [
    at(TEXT, PIECE),
    at(TEXT, PIECE, 0, { id: 'picture-missing' }),
    at(TEXT, PIECE, 0, { group: 'a' }),
    at(TEXT, PIECE, 0, { culprit: { at: 'element', offset, part: 'src' } }),
    at(TEXT, PIECE, 0, { culprit: { at: 'made', selector: '#seeds' } }),
    at(TEXT, PIECE, 0, { culprit }),
  ].map((one) => keysOf(TEXT, one)[0]);
  expect(new Set(keys).size).toBe(keys.length);
});

test('what is of the snippet as a whole is known by what it is, and not by its text', () => {
  const culprit: Culprit = { at: 'snippet', what: 'weight' };
  const whole = (text: string) => keysOf(text, at(text, text, 0, { culprit }));
  expect(whole(TEXT)).toEqual(whole(`${TEXT}<p>Reap</p>`));
});
