import { describe, expect, test } from '@jest/globals';
import { defineCheck, makeSeen, type Check, type Needs } from '../../src/core/check.js';
import { CHECKS } from '../../src/checks/index.js';
import type { Evidence, FactKind, RequestFact } from '../../src/core/evidence.js';
import { getDefaultHouse } from '../../src/core/house/read.js';
import { judgeSnippet } from '../../src/core/judge/judge.js';
import { readMarkup } from '../../src/core/markup/markup.js';
import { planOutages, planRenders, planVariants } from '../../src/core/plan.js';
import { getWants } from '../../src/core/wants.js';
import {
  CONDITIONS,
  getEmpty,
  getPlace,
  getRenderKey,
  nameState,
  type Render,
} from '../../src/core/render.js';
import { makeLost } from '../../src/render/bounds/lost.js';

const house = getDefaultHouse();
const renders = planRenders('x', house, house);
const NONE = new Map();
const ABOUT = { markup: readMarkup(''), house };

/** Evidence of a page that is 100 px wider than its window below 600 px. */
const look = (render: Render): Evidence => {
  const made = { ...makeLost(render, 0, ''), gaps: [] };
  made.page.atLoad.scrollWidth = render.viewport.width < 600 ? 700 : 0;
  return made;
};
const evidence = renders.map(look);

function makeCheck(id: string, needs: FactKind[] | Needs<FactKind>): Check {
  return defineCheck({
    id,
    subject: 'page',
    level: 'concern',
    title: '',
    decided: '',
    standard: null,
    needs,
    markup: false,
    judge: (c) =>
      c.renders.map((render) => ({
        where: { offset: 0, endOffset: 3 },
        culprit: { at: 'snippet', what: id },
        data: null,
        seen: [makeSeen(render, {})],
        ranges: [{ from: 320, to: 390, near: false, slot: '' }],
      })),
    says: () => ({ message: '', notice: '', cure: '' }),
    samples: [null],
    examples: { faulty: [], sound: [] },
  });
}

const PLAIN = makeCheck('page-hangs', ['page']);
const CALM = makeCheck('slot-overflow', {
  kinds: ['page'],
  variants: ['reduced-motion'],
  calls: ({ page }) => page.atLoad.scrollWidth > 0,
});

describe('variants', () => {
  test('are rendered where a check asks for them by name, and what is seen calls for it', () => {
    expect(planVariants(evidence, [PLAIN], NONE, ABOUT)).toEqual([]);
    const planned = planVariants(evidence, [PLAIN, CALM, CALM], NONE, ABOUT);
    expect(planned.map(({ viewport, variant }) => [viewport.width, variant])).toEqual([
      [320, 'reduced-motion'],
      [390, 'reduced-motion'],
    ]);
    const always = makeCheck('page-hangs', {
      kinds: ['page'],
      variants: ['as-is', 'reduced-motion'],
    });
    expect(planVariants(evidence, [always], NONE, ABOUT)).toHaveLength(4);
    // Where what calls for it was not seen, nothing does.
    const gap = { kind: 'page' as const, why: 'x', seen: null, kept: null };
    expect(
      planVariants(
        evidence.map((one) => ({ ...one, gaps: [gap] })),
        [CALM],
        NONE,
        ABOUT,
      ),
    ).toEqual([]);
  });

  test('are seen by the checks that ask for them alone', () => {
    const all = [...evidence, ...planVariants(evidence, [CALM], NONE, ABOUT).map(look)];
    const { report } = judgeSnippet({
      snippet: { name: 'x', path: null, text: '<p>x</p>' },
      markup: readMarkup('<p>x</p>'),
      house,
      evidence: all,
      baselines: NONE,
      checks: [PLAIN, CALM],
      today: '2026-06-01',
      markupOnly: null,
    });
    const places = report.findings.map(({ id, seen }) => [
      id,
      seen.map(({ variant, width }) => `${variant} ${width}`),
    ]);
    expect(Object.fromEntries(places)).toEqual({
      'page-hangs': ['as-is 320', 'as-is 390', 'as-is 768', 'as-is 1280'],
      'slot-overflow': ['reduced-motion 320', 'reduced-motion 390'],
    });
    expect(report.findings[0]!.ranges).toEqual([{ from: 320, to: 390, near: false, slot: '' }]);
    expect(report.renders.map(({ variant }) => variant)).toHaveLength(6);
  });

  test('are not judged where what would call for them was not seen', () => {
    const gap = { kind: 'page' as const, why: 'it was late', seen: null, kept: null };
    const { report, notJudged } = judgeSnippet({
      snippet: { name: 'x', path: null, text: '<p>x</p>' },
      markup: readMarkup('<p>x</p>'),
      house,
      evidence: evidence.map((one) => ({ ...one, gaps: [gap] })),
      baselines: NONE,
      checks: [CALM],
      today: '2026-06-01',
      markupOnly: null,
    });
    expect(report.findings).toEqual([]);
    expect(notJudged).toEqual([{ id: 'slot-overflow', why: 'it was late', snippet: 'x' }]);
  });

  test('are not judged where this house calls for them, and the one before did not', () => {
    const judge = (checks: Check[], more: typeof evidence) =>
      judgeSnippet({
        ...{ snippet: { name: 'x', path: null, text: '<p>x</p>' }, house, checks },
        ...{ markup: readMarkup('<p>x</p>'), evidence: [...evidence, ...more], baselines: NONE },
        ...{ today: '2026-06-01', markupOnly: null },
      }).notJudged;
    const why = 'it was not looked for in this run';
    expect(judge([CALM], [])).toEqual([{ id: 'slot-overflow', why, snippet: 'x' }]);
    const calm = planVariants(evidence, [CALM], NONE, ABOUT).map(look);
    expect([judge([CALM], calm), judge([PLAIN], [])]).toEqual([[], []]);
  });

  test('do not count where it is asked from where a snippet fits', () => {
    const wide = { ...PLAIN, tooWide: () => true, judge: () => [] };
    const gap = { kind: 'page' as const, why: 'x', seen: null, kept: null };
    const calm = planVariants(evidence, [CALM], NONE, ABOUT).map(look);
    const { report } = judgeSnippet({
      snippet: { name: 'x', path: null, text: '<p>x</p>' },
      markup: readMarkup('<p>x</p>'),
      house,
      evidence: [...evidence, ...calm.map((one) => ({ ...one, gaps: [gap] }))],
      baselines: NONE,
      checks: [wide],
      today: '2026-06-01',
      markupOnly: null,
    });
    expect(report.fitsFrom).toBe(0);
  });
});

describe('hosts that do not answer', () => {
  const drill = CHECKS.filter(({ id }) => id === 'outage-harms-page');
  const ask = (host: string, refused: RequestFact['refused'] = null) =>
    ({ host, refused }) as RequestFact;
  const seen = evidence.map((one, i) => ({
    ...one,
    traffic: [
      ask('www.seedlibrary.example'),
      ask(i === 0 ? 'maps.fernmap.example' : 'tally.example'),
      ask('10.0.0.7', { kind: 'private-address', words: '' }),
    ],
  }));

  test('are those of others that were asked in any window, each in one of them', () => {
    const planned = planOutages(seen, drill, ABOUT, {});
    const places = planned.map((render) => getPlace({ render, of: 0 }));
    expect(places.map(({ variant, width }) => [variant, width])).toEqual([
      ['outage:maps.fernmap.example', 1280],
      ['outage:tally.example', 1280],
    ]);
    expect(new Set(planned.map(getRenderKey)).size).toBe(2);
    expect(places.map(nameState)).toEqual([
      'without maps.fernmap.example',
      'without tally.example',
    ]);
    expect(nameState({ ...places[1]!, after: 10 })).toBe('without tally.example for 10 s');
    expect(getEmpty(planned[0]!)).toEqual({ ...getEmpty(seen[3]!.render), search: [] });
  });

  test('are nobody’s where no drill is asked for, and no variant like others', () => {
    expect(planOutages(seen, [PLAIN, CALM], ABOUT, {})).toEqual([]);
    expect(planVariants(seen, drill, NONE, ABOUT)).toEqual([]);
  });
});

describe('what is found out of a render', () => {
  const of = (...checks: Check[]) => getWants(checks);
  const REPORTED = ['page', 'slot', 'elements', 'frames', 'media', 'scripts'];
  /** What other windows are tried goes by it. */
  const PLANNING = 'asks';

  test('is what checks read, and what is told of each', () => {
    expect(of(makeCheck('page-hangs', []))['as-is']).toEqual(
      expect.arrayContaining([...REPORTED, PLANNING]),
    );
    expect(of(makeCheck('page-hangs', []))['as-is']).toHaveLength(7);
    expect(of(makeCheck('page-hangs', [])).minute).toEqual(REPORTED);
    const wanted = of(PLAIN, makeCheck('slot-overflow', ['causes']))['as-is'];
    expect(new Set(wanted)).toEqual(new Set([...REPORTED, PLANNING, 'causes']));
  });

  test('in another variant what is read in that; as it is, all that decides what is called for', () => {
    const calm = makeCheck('slot-overflow', { kinds: ['texts'], variants: ['reduced-motion'] });
    const wants = of(calm, makeCheck('page-hangs', ['traffic']));
    expect(wants['as-is']).toEqual(expect.arrayContaining(['texts', 'traffic']));
    expect(wants['reduced-motion']).toContain('texts');
    expect(wants['reduced-motion']).not.toContain('traffic');
  });
});

describe('the key of a render', () => {
  const [first] = renders as [Render];

  test('tells apart all that makes another render', () => {
    const others: Render[] = [
      { ...first, variant: 'reduced-motion' },
      { ...first, snippets: [{ name: 'y', slot: 'column' }] },
      { ...first, snippets: [{ name: 'x', slot: 'side' }] },
      { ...first, snippets: [...first.snippets, { name: 'y', slot: 'side' }] },
      ...Object.keys(first.viewport).map((key) => ({
        ...first,
        viewport: { ...first.viewport, [key]: 'other' },
      })),
    ];
    const keys = [first, ...others].map(getRenderKey);
    expect(new Set(keys).size).toBe(keys.length);
    expect(getRenderKey(structuredClone(first))).toBe(keys[0]);
  });

  test('of the page without snippets is the same for whatever was in it', () => {
    const other: Render = { ...first, snippets: [{ name: 'y', slot: 'column' }] };
    const filtered: Render = { ...other, variant: 'filtered' };
    for (const one of [other, filtered, getEmpty(other)])
      expect(getRenderKey(getEmpty(one))).toBe(getRenderKey(getEmpty(first)));
  });

  test('of the page without snippets is another for another visitor, and the same for both of their pages', () => {
    const calm: Render = { ...first, variant: 'reduced-motion' };
    expect(getEmpty(calm).variant).toBe('empty-reduced-motion');
    expect(getRenderKey(getEmpty(getEmpty(calm)))).toBe(getRenderKey(getEmpty(calm)));
    for (const { media, against } of Object.values(CONDITIONS)) {
      expect(CONDITIONS[against].media).toEqual(media);
      expect(CONDITIONS[against].source).toBe('none');
    }
  });
});
