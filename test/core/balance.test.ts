import { describe, expect, test } from '@jest/globals';
import { isPlainlyBalanced } from '../../src/core/markup/balance.js';
import { findBreak } from '../../src/core/markup/enclosure.js';
import { readMarkup } from '../../src/core/markup/markup.js';

const SOUND = [
  '',
  'Sow in May',
  '<p>Sow <b>in</b> May<br></p>',
  '<div><P>Sow</p ></div>'.replace(' >', '>'),
  '<ul><li>Beans</li></ul><img src="a.png">',
  '<table><tr><td>Beans</td></tr></table>',
  '<script>if (a > b) c()</script>',
];

/** Each is told from a break, or could be one: it has to be parsed once more. */
const UNPLAIN = [
  '<div>',
  '</div>',
  '<p>Sow',
  '<div><div></div>',
  '<div></div></div>',
  '<b><i>Sow</b></i>',
  '<!-- a --><p>Sow</p>',
  '<p>Sow</p><',
  '<p title="<b>">Sow</p>',
  '<script>"</p>"</script>',
  '<li>Beans<li>Peas',
  '<p>Sow</p></p>',
  '<div/>',
  '<form><form></form></form>',
  '<html><p>Sow</p></html>',
  '<p>Sow</p><p',
  '<a href="/x>Sow</a>',
  '<textarea></p></textarea>',
  '<svg><path/></svg>',
];

describe('what closes all that it opens', () => {
  test.each(SOUND)('%s', (text) => {
    expect(isPlainlyBalanced(readMarkup(text))).toBe(true);
    expect(findBreak(text)).toBeNull();
  });

  test.each(UNPLAIN)('not plainly: %s', (text) => {
    expect(isPlainlyBalanced(readMarkup(text))).toBe(false);
  });

  test('what is plainly balanced never breaks the page', () => {
    const names =
      'div p b i a li ul table tr td form button h2 select option span svg script'.split(' ');
    let seed = 7;
    const next = (most: number) => (seed = (seed * 16807) % 2147483647) % most;
    // Always closed in turn, in whatever order HTML may not have it: the parser decides.
    const build = (depth: number): string => {
      const name = names[next(names.length)]!;
      const inside = Array.from({ length: depth > 0 ? next(3) : 0 }, () => build(depth - 1));
      return `<${name}>${inside.join(next(2) === 0 ? 'x' : '')}</${name}>`;
    };
    let plain = 0;
    for (let i = 0; i < 3000; i++) {
      const text = build(3) + build(1);
      if (!isPlainlyBalanced(readMarkup(text))) continue;
      plain++;
      expect([text, findBreak(text)]).toEqual([text, null]);
    }
    expect(plain).toBeGreaterThan(100);
  });
});

describe('end tags too many', () => {
  const list = (text: string) => {
    const found = findBreak(text);
    if (found?.kind !== 'stray-end') return null;
    const take = ({ offset, endOffset }: { offset: number; endOffset: number }) =>
      `${offset} ${text.slice(offset, endOffset)}`;
    return [take(found.span), ...found.spans.map(take)];
  };

  test.each([
    ['</div><p>x</p></section></div>', '0 </div>', ['0 </div>', '14 </section>', '24 </div>']],
    ['<p>x</p></main><b>y</b>', '8 </main>', ['8 </main>']],
    ['<article>x</article></article >', '20 </article >', ['20 </article >']],
    ['</div>'.repeat(40), '0 </div>', []],
  ])('%s', (text, first, all) => {
    expect(list(text)).toEqual([first, ...all]);
  });

  test.each(['</ul><p>x</p>', '</span>x', '<main><p>x</p></main>', '<p>x</p></p>'])(
    'closes nothing of the page: %s',
    (text) => expect(findBreak(text)).toBeNull(),
  );
});
