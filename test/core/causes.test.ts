import { describe, expect, test } from '@jest/globals';
import { CHECKS } from '../../src/checks/index.js';
import type { Check } from '../../src/core/check.js';
import { getDefaultHouse } from '../../src/core/house/read.js';
import { applyEdits } from '../../src/core/mend/apply.js';
import { judgeMarkup } from '../support/markup-only.js';

/** What is found in the markup alone: cause and name of each, and what each change makes of the text. */
function judgeWith(text: string, checks: readonly Check[], waived: string[] = []) {
  const waivers = waived.map((finding) => ({ finding, until: '2099-01-01', reason: 'x' }));
  return judgeMarkup(text, checks, { ...getDefaultHouse(), waivers });
}

function judge(text: string, waived: string[] = []) {
  const report = judgeWith(text, CHECKS, waived);
  const found = report.findings.map(({ cause, id }) => `${cause} ${id}`);
  const mends = report.causes.map(({ mend }) => mend && applyEdits(text, mend));
  return { ...report, found, mends };
}

const FILM = '<video src="a.mp4" controls poster="a.png"';
const END = '><track srclang="en" src="a.vtt"></video>';

describe('what one change cures has one cause', () => {
  test('two cures of one place are put together', () => {
    const { found, mends, mended } = judge(`${FILM} autoplay${END}`);
    expect(found).toEqual(['1 autoplay-with-sound', '1 autoplay-without-inline']);
    expect(mends).toEqual([`${FILM} autoplay muted playsinline${END}`]);
    expect(mended).toBe(mends[0]);
  });

  test('what is taken out has no other fault', () => {
    const { found, mends, mended, causes } = judge(`${FILM} autoplay="false"${END}`);
    expect(found).toEqual(['1 autoplay-with-sound', '1 autoplay-value-ignored']);
    expect(mends).toEqual([`${FILM}${END}`]);
    expect(mended).toBe(mends[0]);
    expect(causes[0]!.cures).toEqual(['autoplay-with-sound', 'autoplay-value-ignored']);
  });

  test('two faults of one tag that two changes cure have two', () => {
    const { found, mends } = judge('<iframe src="https://maps.fernmap.example/"></iframe>');
    expect(found).toEqual(['1 frame-unnamed', '2 frame-border-left-on']);
    expect(mends[0]).toBeNull();
  });

  test('what is waived keeps to itself, and stays as it is', () => {
    const text = `${FILM} autoplay${END}`;
    const { found, mended } = judge(text, ['autoplay-without-inline']);
    expect(found).toEqual(['1 autoplay-with-sound', '2 autoplay-without-inline']);
    expect(mended).toBe(`${FILM} autoplay muted${END}`);
  });

  test('what is alike at many places has numbers in a row', () => {
    const { found } = judge(
      '<p clas="a">x</p><img src="a.png" width="9" height="9"><p clas="b">y</p><p tilte="z">z</p>',
    );
    expect(found).toEqual([
      '1 picture-without-alt',
      '2 attribute-misspelt',
      '3 attribute-misspelt',
      '4 attribute-misspelt',
    ]);
  });

  test('a change that leaves the gravest as it is is offered for the other alone', () => {
    const { findings, causes } = judge(
      '<iframe width="500" allowfullscreen="x" height="9"></iframe>',
    );
    const fixed = findings.find(({ id }) => id === 'frame-fixed-size')!;
    const unnamed = findings.find(({ id }) => id === 'frame-unnamed')!;
    expect(causes.find(({ number }) => number === unnamed.cause)).toMatchObject({
      mend: null,
      cures: [],
    });
    expect(causes.find(({ number }) => number === fixed.cause)!.cures).toEqual([
      'frame-fixed-size',
    ]);
  });

  test('what leaves the gravest as it is is no cure of the cause', () => {
    const make = (id: string, level: 'blocker' | 'concern', mend: Check['mend']) =>
      ({
        ...CHECKS.find((one) => one.id === id)!,
        level,
        explains: [],
        judge: () => [
          {
            where: { offset: 3, endOffset: 4 },
            culprit: { at: 'element', offset: 0 },
            data: null,
            seen: [],
          },
        ],
        says: () => ({ message: 'm', notice: 'n', cure: 'c' }),
        brief: () => '',
        mend,
      }) as Check;
    const set: Check['mend'] = () => [{ do: 'set-attribute', element: 0, name: 'b', value: null }];
    const run = (grave: Check['mend'], light: Check['mend']) =>
      judgeWith('<p a>x</p>', [
        make('audio-autoplays', 'blocker', grave),
        make('frame-unnamed', 'concern', light),
      ]);
    expect(run(() => null, set).causes).toEqual([{ number: 1, mend: null, cures: [] }]);
    expect(run(set, () => null).causes[0]!.cures).toEqual(['audio-autoplays']);
  });
});
