import { PassThrough } from 'node:stream';
import { expect, test } from '@jest/globals';
import { askHere } from '../../src/cli/asking.js';
import type { SnippetReport } from '../../src/core/run.js';
import { judgeMarkup } from '../support/markup-only.js';

/** What is shown, and what comes of lines that somebody types. */
async function type(code: string, typed: string) {
  const stdin = Object.assign(new PassThrough(), { isTTY: true });
  stdin.end(typed);
  let out = '';
  const stdout = {
    write(text: string, done?: () => void) {
      out += text;
      done?.();
    },
  };
  const world = { stdin, stdout, stderr: stdout, env: {}, cwd: '/' };
  const replies = await askHere([judgeMarkup(code) as SnippetReport], world);
  return { out, said: replies.map(({ finding, text }) => [finding, text]) };
}

const CODE =
  '<h2>Beds</h2><img src="/a.png"><img src="/b.png"><a href="#">More</a><img src="/c.png">';

test('what only a person can say is asked on the terminal, and may be left', async () => {
  const { out, said } = await type(CODE, 'Runner beans\n-\n\n');
  expect(said).toEqual([
    ['picture-without-alt', 'Runner beans'],
    ['picture-without-alt', null],
  ]);
  expect(out).toContain('4 questions. An empty answer leaves it as it is.');
  expect(out).toContain(
    'x, line 1: <img src="/a.png">\n  address: /a.png\n  near: Beds\n  What does the picture show? (-: it is mere decoration) ',
  );
  expect(out).toContain('Where is the link to lead? ');
});

test('nothing is asked where there is nothing to say, and a dash is an answer where it can be none', async () => {
  expect(await type('<p>Sow</p>', '')).toEqual({ out: '', said: [] });
  const { said } = await type('<a href="/x"><img alt="" src="/y.png"></a>', '-\n');
  expect(said).toEqual([['linked-picture-unnamed', '-']]);
});
