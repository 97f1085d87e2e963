import { describe, expect, test } from '@jest/globals';
import { Work } from '../../src/core/mend/work.js';
import type { Finding, SnippetReport } from '../../src/core/run.js';
import { judgeMarkup } from '../support/markup-only.js';

const TEXT = 'a b c';

/** A report of a text in which certain letters are faults, each cured by its capital. */
function report(text: string, faults = 'abc', level: Finding['level'] = 'concern'): SnippetReport {
  const found = [...text].flatMap((letter, at) =>
    faults.includes(letter) ? [{ letter, at }] : [],
  );
  const toMend = ({ letter, at }: { letter: string; at: number }) => [
    { offset: at, endOffset: at + 1, text: letter.toUpperCase() },
  ];
  return {
    ...{ name: 'beds', text, gaps: [] },
    findings: found.map(({ letter }, i) => ({ id: letter, key: letter, cause: i + 1, level })),
    causes: found.map((one, i) => ({ number: i + 1, mend: toMend(one), cures: [one.letter] })),
    mended:
      found.length > 0
        ? [...text].map((l) => (faults.includes(l) ? l.toUpperCase() : l)).join('')
        : null,
  } as unknown as SnippetReport;
}

/** Goes through all trials, with what a look at each text gives. */
function run(work: Work, look: (text: string) => SnippetReport): string[] {
  const tried: string[] = [];
  for (let trial = work.next(); trial && tried.length < 20; trial = work.next()) {
    tried.push(trial.text);
    work.take(trial, look(trial.text));
  }
  return tried;
}

describe('a snippet is mended', () => {
  test('all at once where that goes well', () => {
    const work = new Work(report(TEXT));
    expect(run(work, report)).toEqual(['A B C']);
    const { after, cured, takenBack } = work.toMended();
    expect([after.text, cured.map(({ id }) => id), takenBack]).toEqual([
      'A B C',
      ['a', 'b', 'c'],
      [],
    ]);
  });

  test('one cure after the other where it does not, and what harms is taken back', () => {
    const work = new Work(report(TEXT));
    // With the capital B comes an x.
    const look = (text: string) => (text.includes('B') ? report(`${text}x`, 'acx') : report(text));
    expect(run(work, look)).toEqual(['A B C', 'A b c', 'A B c', 'A b C']);
    const { after, cured, takenBack } = work.toMended();
    expect([after.text, cured.map(({ id }) => id)]).toEqual(['A b C', ['a', 'c']]);
    expect(takenBack.map(({ findings }) => findings.map(({ id }) => id))).toEqual([['b']]);
    expect(takenBack[0]!.proof.brought.map(({ id }) => id)).toEqual(['x']);
  });

  test('not where a cure does nothing', () => {
    const work = new Work(report('a'));
    expect(run(work, () => report('a'))).toEqual(['A']);
    expect(work.toMended().after.text).toBe('a');
    expect(work.toMended().takenBack[0]!.proof.stayed.map(({ id }) => id)).toEqual(['a']);
  });

  test('not where somebody accepts it as it is', () => {
    const given = report('a b');
    given.findings[0]!.waiver = {
      snippet: null,
      piece: null,
      reason: 'so',
      until: '2027-01-01',
      by: null,
      expired: false,
    };
    given.mended = 'a B';
    const work = new Work(given);
    expect(run(work, (text) => report(text, 'b'))).toEqual(['a B']);
    expect(work.toMended().cured.map(({ id }) => id)).toEqual(['b']);
  });

  test('with what a person has said first, and then with what is certain', () => {
    const text = '<img src="/b.png"><a href="#">b</a>';
    const given = judgeMarkup(text);
    const keys = new Map(given.findings.map(({ id, key }) => [id, key]));
    const said = new Map([
      [keys.get('picture-without-alt')!, 'Beans'],
      [keys.get('jump-to-top-link')!, '#'],
      ['nobody', 'x'],
    ]);
    const toReport = (now: string) => judgeMarkup(now) as SnippetReport;
    const work = new Work(given as SnippetReport, said);
    const tried = run(work, toReport);
    const alt = text.replace('<img src="/b.png"', '<img src="/b.png" alt="Beans"');
    expect(tried).toEqual([alt, alt, alt]);
    const { after, cured, takenBack } = work.toMended();
    expect([after.text, cured.map(({ id }) => id)]).toEqual([alt, ['picture-without-alt']]);
    expect(takenBack.map(({ findings }) => findings.map(({ id }) => id))).toEqual([
      ['jump-to-top-link'],
    ]);
  });

  test('no further where it cannot be looked at', () => {
    const work = new Work(report(TEXT));
    work.end();
    expect([work.next(), work.toMended().after.text]).toEqual([null, TEXT]);
  });

  test('nor where there is nothing to mend', () => {
    expect(new Work(report('x')).next()).toBeNull();
  });
});
