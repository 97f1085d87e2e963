import { describe, expect, test } from '@jest/globals';
import { ToolError } from '../../src/core/errors.js';
import { readAnswers, toIntents } from '../../src/core/mend/answers.js';
import { composeMend } from '../../src/core/mend/compose.js';
import { applyEdits } from '../../src/core/mend/apply.js';
import { listQuestions, writeQuestions } from '../../src/core/mend/questions.js';
import { readMarkup } from '../../src/core/markup/markup.js';
import { judgeMarkup } from '../support/markup-only.js';

const BED = `<h2>Seed swap</h2>
<p>Bring seed. <a href="#">More</a></p>
<p>Beans <img src="/beans.png"></p>
<button type="button"><svg viewBox="0 0 9 9"><path d="M1 1h8z"/></svg></button>
<iframe src="https://maps.fernmap.example/x" aria-label="frame"></iframe>
<a href="/desk"><img src="/desk.png" alt=""></a>
<svg role="img" viewBox="0 0 9 9"></svg><img alt="photo" src="/pea.png"><input>`;

const ask = (text: string) => listQuestions(judgeMarkup(text));

/** The text with an answer to each question: the words given, or that it is decoration. */
function answer(text: string, say: (question: string) => string | null): string {
  const { findings } = judgeMarkup(text);
  return ask(text).reduce((now, { key, question }) => {
    const finding = findings.find((one) => one.key === key)!;
    const edits = composeMend(readMarkup(text), toIntents(finding, say(question)));
    return edits ? applyEdits(now, edits) : now;
  }, text);
}

describe('what only a person can say', () => {
  test('is asked in the order of the source, with what it is about and what stands near', () => {
    const asked = ask(BED).map(({ line, finding, takes, about, near }) =>
      [line, finding, takes, about, near].join(' | '),
    );
    expect(asked).toEqual([
      '2 | jump-to-top-link | address |  | More',
      '3 | picture-without-alt | text | /beans.png | Beans',
      '4 | vector-unnamed | text |  | Beans',
      '5 | frame-unnamed | text | https://maps.fernmap.example/x | Beans',
      '6 | linked-picture-unnamed | text | /desk.png | Beans',
      '7 | vector-unnamed | text |  | Beans',
      '7 | alt-says-nothing | text | /pea.png | Beans',
      '7 | control-unnamed | text |  | Beans',
    ]);
  });

  test.each([
    ['<p><a href="#">More</a></p>', '/swap', '<p><a href="/swap">More</a></p>'],
    ['<img src="/b.png">', 'Beans & "peas"', `<img src="/b.png" alt='Beans &amp; "peas"'>`],
    ['<img src="/b.png">', null, '<img src="/b.png" alt="">'],
    ['<img src="/b.png" alt="photo">', null, '<img src="/b.png" alt="">'],
    ['<svg role="img"></svg>', null, '<svg role="img" aria-hidden="true"></svg>'],
    ['<svg role="img"></svg>', 'A bean', '<svg role="img" aria-label="A bean"></svg>'],
    [
      '<button type="button"><svg></svg></button>',
      'Close',
      '<button type="button" aria-label="Close"><svg></svg></button>',
    ],
    ['<iframe src="/m" title="iframe"></iframe>', 'Map', '<iframe src="/m" title="Map"></iframe>'],
    [
      '<iframe src="/m" aria-label="frame"></iframe>',
      'Map',
      '<iframe src="/m" aria-label="Map"></iframe>',
    ],
    [
      '<a href="/d"><img src="/d" alt=""></a>',
      'Desk',
      '<a href="/d"><img src="/d" alt="Desk"></a>',
    ],
    // A link with nothing else in it has to say something.
    ['<a href="/d"><img src="/d" alt=""></a>', null, '<a href="/d"><img src="/d" alt=""></a>'],
    ['<div role="img"></div>', 'A bed', '<div role="img" aria-label="A bed"></div>'],
    ['<input>', 'Your name', '<input aria-label="Your name">'],
  ])('%s with %j', (text, said, mended) => {
    expect(answer(text, () => said)).toBe(mended);
  });

  test('is not asked of what somebody accepts, nor of a document that is written into a frame', () => {
    const given = judgeMarkup('<img src="/b.png">');
    given.findings[0]!.waiver = {
      snippet: null,
      piece: null,
      reason: 'so',
      until: '2027-01-01',
      by: null,
      expired: false,
    };
    expect(listQuestions(given)).toEqual([]);
    expect(ask('<iframe title="Beans" srcdoc="<img src=/b.png>"></iframe>')).toEqual([]);
  });
});

describe('a file of questions', () => {
  const questions = ask(BED);
  const file = writeQuestions(questions, 'q.yaml');

  test('has no answers yet', () => {
    expect(file.match(/^ {2}answer:$/gm)).toHaveLength(questions.length);
    expect(file).toContain('--answers q.yaml');
    expect(readAnswers(file, 'q.yaml')).toEqual([]);
  });

  test('gives back what is written into it', () => {
    const filled = file
      .replace(/^ {2}answer:$/m, '  answer: 2026')
      .replace('decoration: false', 'decoration: true');
    const [first, second] = questions;
    expect(readAnswers(filled, 'q.yaml')).toEqual([
      { snippet: 'x', key: first!.key, finding: 'jump-to-top-link', text: '2026' },
      { snippet: 'x', key: second!.key, finding: 'picture-without-alt', text: null },
    ]);
  });

  test.each([
    ['- { snippet: a, key: b, answr: c }', 'a.yaml, line 1: `0.answr` is not a key of "0".'],
    ['- { snippet: a, answer: c }', 'a.yaml, line 1: `0.key` must be a string, found nothing.'],
    ['answer: x', 'a.yaml, line 1: must be a list.'],
    [
      '\n- { snippet: a, key: b, answer: c, decoration: true }',
      'a.yaml, line 2: `0.decoration` is true, and there is an answer too: leave one.',
    ],
    [
      '- { snippet: a, key: b, takes: address, answer: the desk }',
      'a.yaml, line 1: `0.answer` must be an address, which has no white space in it.',
    ],
    ['- { a: 1', 'a.yaml, line 1: is not YAML'],
  ])('that is wrong is told of in a sentence: %s', (text, words) => {
    const reading = () => readAnswers(text, 'a.yaml');
    expect(reading).toThrow(ToolError);
    expect(reading).toThrow(words);
  });
});
