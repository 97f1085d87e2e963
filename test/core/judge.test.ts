import { describe, expect, test } from '@jest/globals';
import { CHECKS } from '../../src/checks/index.js';
import { defineCheck, makeSeen, type Check, type Fact } from '../../src/core/check.js';
import type { ElementFact, Evidence, RequestFact } from '../../src/core/evidence.js';
import type { House } from '../../src/core/house/house.js';
import { getDefaultHouse } from '../../src/core/house/read.js';
import { judgeSnippet } from '../../src/core/judge/judge.js';
import { formatCorrected } from '../../src/formats/corrected.js';
import { readMarkup } from '../../src/core/markup/markup.js';
import { findCulprits } from '../../src/core/measure/culprits.js';
import { applyEdits } from '../../src/core/mend/apply.js';
import { planRenders } from '../../src/core/plan.js';
import { makeLost } from '../../src/render/bounds/lost.js';

const house = getDefaultHouse();
const renders = planRenders('x', house, house);
const whole = (): Evidence[] =>
  renders.map((render) => ({
    ...makeLost(render, 0, ''),
    gaps: [],
    slot: {
      name: 'column',
      overhang: 0,
      text: false,
      family: '',
      pageFamily: null,
      inForm: false,
      box: { x: 16, y: 0, width: Math.min(680, render.viewport.width - 32), height: 9 },
    },
  }));

/** A check that finds the same fault in every render it may look at. */
function makeCheck(id: string, level: 'blocker' | 'concern', what = 'all'): Check {
  const known = CHECKS.find((check) => check.id === id);
  const made = defineCheck({
    id,
    subject: 'page',
    level,
    title: '',
    decided: '',
    standard: null,
    needs: ['slot'],
    markup: false,
    judge: (c): Fact<object>[] =>
      c.renders.map((render) => ({
        where: { offset: 0, endOffset: 3 },
        culprit: { at: 'snippet', what },
        data: {},
        seen: [makeSeen(render, {})],
      })),
    says: () => ({ message: 'm', notice: 'n', cure: 'c' }),
    samples: [{}],
    examples: { faulty: [], sound: [] },
  });
  const { explains, tooWide } = known ?? {};
  return { ...made, ...(explains && { explains }), ...(tooWide && { tooWide }) };
}

function judge(checks: Check[], given: Partial<Parameters<typeof judgeSnippet>[0]> = {}) {
  const snippet = { name: 'x.html', path: 'in/x.html', text: '<p>x</p>' };
  return judgeSnippet({
    snippet,
    markup: readMarkup(snippet.text),
    house,
    evidence: whole(),
    baselines: new Map(),
    checks,
    today: '2026-06-01',
    markupOnly: null,
    ...given,
  });
}

describe('what only the markup tells of', () => {
  const like = (more: Partial<Check>): Check => ({
    ...makeCheck('slot-overflow', 'blocker'),
    judge: () => [
      {
        where: { offset: 0, endOffset: 3 },
        culprit: { at: 'snippet', what: 'x' },
        data: {},
        seen: [],
      },
    ],
    ...more,
  });
  const none = { kinds: [], variants: ['as-is' as const] };
  const unrendered = { evidence: [], markupOnly: 'only the markup was read' };

  test.each<[string, Partial<Check>, string[]]>([
    ['a check that reads renders alone did not judge', { markup: false }, ['slot-overflow']],
    [
      'one that sees a part of it in the markup did not either',
      { markup: 'part' },
      ['slot-overflow'],
    ],
    ['one that sees all of it there did', { markup: true }, []],
    ['one that reads no renders did', { markup: true, needs: none }, []],
  ])('%s', (_name, more, ids) => {
    expect(judge([like(more)], unrendered).notJudged.map(({ id }) => id)).toEqual(ids);
  });

  test.each<[string, Partial<Check>, object, boolean]>([
    ['what renders decide is not confirmed without them', { markup: true }, unrendered, false],
    ['what the markup decides is', { markup: true, needs: none }, unrendered, true],
    ['what was seen is', { markup: false }, {}, true],
  ])('%s', (_name, more, given, confirmed) => {
    const { findings } = judge([like(more)], given).report;
    expect(findings.map((one) => one.confirmed)).toEqual([confirmed]);
  });

  test('what was seen and settles nothing is not confirmed', () => {
    const [fact] = like({}).judge({ renders: [] } as never);
    const doubtful = like({ judge: () => [{ ...fact!, doubtful: true }] });
    expect(judge([doubtful]).report.findings.map((one) => one.confirmed)).toEqual([false]);
  });
});

describe('judging', () => {
  test('the same fault at four widths is one finding seen four times', () => {
    const { report } = judge([makeCheck('slot-overflow', 'concern')]);
    expect(report.findings).toHaveLength(1);
    expect(report.findings[0]!.seen.map(({ width }) => width)).toEqual([320, 390, 768, 1280]);
    expect(report).toMatchObject({ verdict: 'clear', fitsFrom: null });
    expect(report.renders.map(({ worst }) => worst)).toEqual([
      'concern',
      'concern',
      'concern',
      'concern',
    ]);
  });

  test('levels of the house change the verdict; `off` takes the check out', () => {
    const levels = (level: 'blocker' | 'off') => ({
      house: { ...house, levels: { 'slot-overflow': level } },
    });
    expect(judge([makeCheck('slot-overflow', 'concern')], levels('blocker')).report.verdict).toBe(
      'hold',
    );
    expect(judge([makeCheck('slot-overflow', 'concern')], levels('off')).report.findings).toEqual(
      [],
    );
    const strict = { house: { ...house, holdOn: 'concern' as const } };
    expect(judge([makeCheck('slot-overflow', 'concern')], strict).report.verdict).toBe('hold');
  });

  test('what is waived is no longer the heaviest of a render, and is told of as waived', () => {
    const waivers = [{ finding: 'slot-overflow', until: '2099-01-01', reason: 'x' }];
    const checks = [makeCheck('slot-overflow', 'concern')];
    const { report } = judge(checks, { house: { ...house, waivers } });
    expect(report.renders.map(({ worst, waived }) => [worst, waived])).toEqual(
      report.renders.map(() => [null, true]),
    );
    expect(judge(checks).report.renders.map(({ waived }) => waived)).not.toContain(true);
  });

  test('a cause silences what it explains, where both were seen', () => {
    const cause = makeCheck('page-scrolls-sideways', 'blocker');
    const phones = {
      ...cause,
      judge: (c: Parameters<Check['judge']>[0]) => cause.judge(c).slice(0, 2),
    };
    const { report } = judge([phones, makeCheck('frame-wider-than-slot', 'blocker')]);
    expect(report.findings.map(({ id, seen }) => [id, seen.map(({ width }) => width)])).toEqual([
      ['frame-wider-than-slot', [768, 1280]],
      ['page-scrolls-sideways', [320, 390]],
    ]);
    expect(
      judge([cause, makeCheck('frame-wider-than-slot', 'blocker')]).report.findings.map(
        ({ id }) => id,
      ),
    ).toEqual(['page-scrolls-sideways']);
  });

  test.each<[string, Partial<House>, string[]]>([
    ['as they are', {}, ['page-scrolls-sideways']],
    [
      'the cause made lighter',
      { levels: { 'page-scrolls-sideways': 'advice' } },
      ['frame-wider-than-slot', 'page-scrolls-sideways'],
    ],
    [
      'the cause switched off',
      { levels: { 'page-scrolls-sideways': 'off' } },
      ['frame-wider-than-slot'],
    ],
    [
      'the cause waived',
      { waivers: [{ finding: 'page-scrolls-sideways', until: '2099-01-01', reason: 'x' }] },
      ['frame-wider-than-slot', 'page-scrolls-sideways'],
    ],
    [
      'the waiver over',
      { waivers: [{ finding: 'page-scrolls-sideways', until: '2020-01-01', reason: 'x' }] },
      ['page-scrolls-sideways'],
    ],
  ])(
    'a cause silences nothing heavier, nor anything it does not stand for: %s',
    (_name, given, ids) => {
      const checks = [
        makeCheck('page-scrolls-sideways', 'blocker'),
        makeCheck('frame-wider-than-slot', 'blocker'),
        makeCheck('slot-overflow', 'concern'),
      ];
      const { report } = judge(checks, { house: { ...house, ...given } });
      expect(report.findings.map(({ id }) => id).sort()).toEqual(ids);
    },
  );

  test('the same place is the same culprit, another subject at another place is not', () => {
    const cause = makeCheck('frame-refused', 'blocker', '@0 silent');
    const wide = makeCheck('frame-wider-than-slot', 'blocker');
    const elsewhere: Check = {
      ...wide,
      judge: (c) => wide.judge(c).map((fact) => ({ ...fact, where: { offset: 4, endOffset: 8 } })),
    };
    const ids = (check: Check) => judge([cause, check]).report.findings.map(({ id }) => id);
    expect(ids(wide)).toEqual(['frame-refused']);
    expect(ids(elsewhere)).toEqual(['frame-refused', 'frame-wider-than-slot']);
  });

  test('a border that alone makes the frame too wide is the cause, though it is lighter', () => {
    const measure = (overhang: number): Check => {
      const check = makeCheck('frame-border-left-on', 'concern');
      const judgeAll = (c: Parameters<Check['judge']>[0]) =>
        c.renders.map((render) => ({
          where: { offset: 0, endOffset: 3 },
          culprit: { at: 'snippet' as const, what: 'all' },
          data: null,
          seen: [makeSeen(render, { overhang })],
        }));
      return { ...check, judge: judgeAll };
    };
    const wide = makeCheck('frame-wider-than-slot', 'blocker');
    const ids = (border: Check) => judge([border, wide]).report.findings.map(({ id }) => id);
    expect(ids(measure(4))).toEqual(['frame-border-left-on']);
    expect(ids(measure(0))).toEqual(['frame-wider-than-slot', 'frame-border-left-on']);
  });

  test('a check that breaks down is not judged, and costs nothing else', () => {
    const broken = {
      ...makeCheck('frame-wider-than-slot', 'blocker'),
      judge: () => {
        throw new Error('oh');
      },
    };
    const { report, notJudged } = judge([broken, makeCheck('slot-overflow', 'concern')]);
    expect(notJudged).toEqual([
      { id: 'frame-wider-than-slot', why: 'the check itself broke down (oh)', snippet: 'x.html' },
    ]);
    expect([report.verdict, report.findings.length]).toEqual(['unsure', 1]);
    const speechless = {
      ...makeCheck('slot-overflow', 'concern'),
      says: () => {
        throw new Error('oh');
      },
    };
    expect(judge([speechless]).notJudged).toHaveLength(1);
  });

  test('blind is only what could have held it, by the house’s own level', () => {
    const evidence = whole();
    evidence[0]!.gaps.push({ kind: 'slot', why: 'x', seen: null, kept: null });
    const sound = { ...makeCheck('slot-overflow', 'concern'), judge: () => [] };
    const verdict = (given: Partial<House>) =>
      judge([sound], { evidence, house: { ...house, ...given } }).report.verdict;
    expect(verdict({})).toBe('clear');
    expect(verdict({ holdOn: 'concern' })).toBe('unsure');
    expect(verdict({ levels: { 'slot-overflow': 'blocker' } })).toBe('unsure');
    expect(verdict({ levels: { 'slot-overflow': 'advice' }, holdOn: 'concern' })).toBe('clear');
  });

  test('the whole snippet is mended by all cures: the one that says more first, none that is waived', () => {
    const cure = (id: string, declarations: Record<string, string>): Check => ({
      ...makeCheck(id, 'concern', id),
      mend: () => [{ do: 'set-style', element: 0, declarations }],
    });
    const checks = [
      cure('page-hangs', { 'max-width': '100%' }),
      cure('slot-overflow', { width: '100%', 'max-width': '9px' }),
      cure('page-taken-over', { top: '0' }),
    ];
    const waivers = [{ finding: 'page-taken-over', until: '2099-01-01', reason: 'so it is' }];
    const { report } = judge(checks, { house: { ...house, waivers } });
    expect(report.mended).toBe('<p style="width: 100%; max-width: 9px">x</p>');
    expect(report.findings.map(({ mend }) => mend?.length)).toEqual([1, 1, 1]);
    expect(judge([makeCheck('page-hangs', 'concern')]).report.mended).toBeNull();
  });

  test('what one script made are two culprits, though both are told at its tag', () => {
    const made = (id: string, selector: string): Check => {
      const check = makeCheck(id, 'blocker');
      const culprit = { at: 'made' as const, selector };
      return { ...check, judge: (c) => check.judge(c).map((fact) => ({ ...fact, culprit })) };
    };
    const ids = (selector: string) =>
      judge([
        made('page-scrolls-sideways', 'div'),
        made('slot-overflow', selector),
      ]).report.findings.map(({ id }) => id);
    expect(ids('div')).toEqual(['page-scrolls-sideways']);
    expect(ids('p')).toEqual(['page-scrolls-sideways', 'slot-overflow']);
  });

  test('what was asked of each host is summed up; what was refused weighs nothing', () => {
    const evidence = whole();
    const of = (host: string, wire: number, failed: string | null) =>
      ({
        host,
        wire,
        unpacked: 2 * wire,
        failed,
        refused: null,
        from: null,
      }) as unknown as RequestFact;
    evidence[0]!.traffic = [
      of('tally.example', 10, null),
      of('maps.fernmap.example', 40, null),
      of('tally.example', 5, null),
      of('tally.example', 60, 'no-answer'),
    ];
    expect(judge([], { evidence }).report.renders[0]!.traffic).toEqual([
      { host: 'maps.fernmap.example', requests: 1, wire: 40, unpacked: 80, failed: 0 },
      { host: 'tally.example', requests: 3, wire: 15, unpacked: 30, failed: 1 },
    ]);
  });

  test('an expired waiver does not stand before one in force', () => {
    const make = (until: string) => ({ finding: 'slot-overflow', until, reason: until });
    const waivers = [make('2020-01-01'), make('2099-01-01')];
    const { report } = judge([makeCheck('slot-overflow', 'concern')], {
      house: { ...house, waivers, holdOn: 'concern' },
    });
    expect(report.findings[0]!.waiver).toMatchObject({ until: '2099-01-01', expired: false });
    expect(report.verdict).toBe('clear');
  });

  test.each([
    ['page-scrolls-sideways', null],
    ['slot-overflow', null],
    ['frame-wider-than-slot', null],
    ['picture-without-alt', 288],
  ])('fits from where nothing of the kind sticks out: %s', (id, from) => {
    const fitting = ['page-scrolls-sideways', 'slot-overflow', 'frame-wider-than-slot'];
    const quiet = fitting.map((one) => ({ ...makeCheck(one, 'concern'), judge: () => [] }));
    const checks = [...quiet.filter((one) => one.id !== id), makeCheck(id, 'concern')];
    expect(judge(checks).report.fitsFrom).toBe(from);
    expect(judge(quiet).report.fitsFrom).toBe(288);
    // Where one of them was not asked for, or a render not wholly seen, nothing is said.
    expect(judge(quiet.slice(1), { known: quiet }).report.fitsFrom).toBeNull();
    const evidence = whole();
    evidence[1]!.gaps.push({ kind: 'elements', why: 'x', seen: null, kept: 5 });
    expect(judge(quiet, { evidence }).report.fitsFrom).toBe(680);
  });

  test('a gap is told, and a blocker that may hide in it makes the verdict unsure', () => {
    const evidence = whole();
    evidence[1]!.gaps.push({ kind: 'slot', why: 'the page hangs', seen: null, kept: null });
    const sound = { ...makeCheck('frame-wider-than-slot', 'blocker'), judge: () => [] };
    const { report, notJudged } = judge([sound], { evidence });
    expect(report.verdict).toBe('unsure');
    expect(notJudged).toEqual([
      { id: 'frame-wider-than-slot', why: 'the page hangs (phone-390, column)', snippet: 'x.html' },
    ]);
    expect(judge([{ ...sound, level: 'concern' }], { evidence }).report.verdict).toBe('clear');
    // Also where some of it was read: the rest may hide anything.
    evidence[1]!.gaps[0]!.kept = 5000;
    expect(judge([sound], { evidence }).report.verdict).toBe('unsure');
  });

  test.each([
    ['x.html', '2026-06-01', true, 'clear'],
    ['*.html', '2026-05-31', true, 'hold'],
    ['in/*', '2026-06-02', true, 'clear'],
    ['y.html', '2099-01-01', false, 'hold'],
  ])('a waiver for %s until %s', (pattern, until, applies, verdict) => {
    const waivers = [
      { finding: 'frame-wider-than-slot', snippet: pattern, until, reason: 'spring' },
    ];
    const { report } = judge([makeCheck('frame-wider-than-slot', 'blocker')], {
      house: { ...house, waivers },
    });
    expect(report.verdict).toBe(verdict);
    expect(report.findings[0]!.waiver !== null).toBe(applies);
  });
});

describe('who is to blame for a width', () => {
  const element = (
    id: number,
    parent: number | null,
    x: number,
    width: number,
    given: Partial<ElementFact> & { css?: Partial<ElementFact['style']> } = {},
  ): ElementFact => ({
    id,
    parent,
    tag: 'div',
    from: { offset: id },
    selector: null,
    box: { x, y: 0, width, height: 10 },
    inkLeft: x,
    inkRight: x + width,
    early: null,
    shown: true,
    exposed: true,
    clipped: false,
    ...given,
    style: {
      display: 'block',
      position: 'static',
      float: 'none',
      width: 'auto',
      minWidth: 'auto',
      maxWidth: 'none',
      overflowX: 'visible',
      ...given.css,
    },
  });
  const blame = (elements: ElementFact[], direction: 'ltr' | 'rtl' = 'ltr') =>
    findCulprits(elements, { left: 0, right: 390, direction, shownOnly: false }).map((one) => [
      one.element.id,
      one.overhang,
      one.by,
    ]);

  test.each<[string, ElementFact[], unknown[]]>([
    [
      'the wide box, not what fills it',
      [element(1, null, 0, 900, { css: { width: '900px' } }), element(2, 1, 0, 900)],
      [[1, 510, 'box']],
    ],
    [
      'the picture, not what shrinks round it',
      [
        element(1, null, 0, 900, { css: { display: 'inline-block' } }),
        element(2, 1, 0, 900, { css: { width: '900px' } }),
      ],
      [[2, 510, 'box']],
    ],
    [
      'the table inside, not its narrower wrapper',
      [
        element(1, null, 0, 600, { css: { minWidth: '600px' } }),
        element(2, 1, 0, 900, { css: { display: 'table' } }),
      ],
      [[2, 510, 'box']],
    ],
    [
      'two boxes, each for itself',
      [
        element(1, null, 0, 900, { css: { width: '900px' } }),
        element(2, null, 0, 700, { css: { width: '700px' } }),
      ],
      [
        [1, 510, 'box'],
        [2, 310, 'box'],
      ],
    ],
    ['the text', [element(1, null, 16, 358, { inkRight: 700 })], [[1, 310, 'ink']]],
    [
      'the block of many pieces of a line',
      [
        element(1, null, 0, 390, { inkRight: 390 }),
        element(2, 1, 0, 500, { css: { display: 'inline' } }),
        element(3, 1, 500, 500, { css: { display: 'inline' } }),
      ],
      [[1, 610, 'ink']],
    ],
    [
      'nobody: clipped, fixed, or by one px only',
      [
        element(1, null, 0, 900, { clipped: true }),
        element(2, null, 0, 900, { css: { position: 'fixed' } }),
        element(3, 2, 0, 900),
        element(4, null, 0, 391),
      ],
      [],
    ],
  ])('%s', (_name, elements, expected) => {
    expect(blame(elements)).toEqual(expected);
  });

  test('one px is let pass, two are not', () => {
    expect(blame([element(1, null, 0, 391)])).toEqual([]);
    expect(blame([element(1, null, 0, 392)])).toEqual([[1, 2, 'box']]);
  });

  test('where only what is seen counts, a box that merely holds others does not', () => {
    const seen = (elements: ElementFact[]) =>
      findCulprits(elements, { left: 0, right: 390, direction: 'ltr', shownOnly: true }).map(
        (one) => one.element.id,
      );
    const row = element(1, null, -15, 420, { inkLeft: 405, inkRight: -15 });
    const fits = element(2, 1, 0, 390);
    const painted = element(2, 1, 0, 405);
    expect(seen([row, fits])).toEqual([]);
    expect(seen([row, painted])).toEqual([1]);
  });

  test('in a page that runs from right to left the left edge counts', () => {
    expect(blame([element(1, null, -200, 590, { css: { width: '590px' } })], 'rtl')).toEqual([
      [1, 200, 'box'],
    ]);
    expect(blame([element(1, null, -200, 590, { css: { width: '590px' } })])).toEqual([]);
  });
});

test('edits are made where they belong, and the changed line is shown', () => {
  const text = '<p>\n  <video autoplay loop="no">\n</p>';
  const edits = [
    { offset: 21, endOffset: 21, text: ' muted' },
    { offset: 21, endOffset: 31, text: '' },
  ];
  expect(applyEdits(text, edits)).toBe('<p>\n  <video autoplay muted>\n</p>');
  expect(formatCorrected(text, edits).lines).toEqual(['<video autoplay muted>']);
});
