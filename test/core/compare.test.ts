import { describe, expect, test } from '@jest/globals';
import { compareCandidates, comparisonSchema } from '../../src/core/compare/candidates.js';
import { compareRuns, runComparisonSchema } from '../../src/core/compare/runs.js';
import type { RenderReport, SnippetReport } from '../../src/core/run.js';
import { makeDocument, makeFinding, makeRender, makeSnippet } from '../support/document.js';

const contact = (host: string, stored = 0) => ({
  ...{ host, site: host, requests: 1, wire: 100, unpacked: 100, scripts: 1, stored },
});

const render = (width: number, given: Partial<RenderReport>): RenderReport => ({
  ...makeRender('column', width, null),
  ...given,
});

const load = (wire: number) => [
  { host: 'a.example', requests: 2, wire, unpacked: wire, failed: 0 },
];

function compare(...given: Partial<SnippetReport>[]) {
  const names = ['a', 'b', 'c'];
  const snippets = given.map((one, i) => makeSnippet({ name: names[i]!, ...one }));
  const comparison = compareCandidates(makeDocument(snippets));
  expect(comparisonSchema.parse(comparison)).toEqual(comparison);
  return comparison;
}

const UNHEARD = { kind: 'traffic', why: 'the page was left', seen: null, kept: null };
const gap = { ...UNHEARD, slot: 'column', viewport: '320', variant: 'as-is' };

describe('candidates', () => {
  test('are held against each other in the window in which each loads most', () => {
    const heavy = {
      renders: [render(320, { traffic: load(10) }), render(900, { traffic: load(90) })],
    };
    const light = { renders: [render(320, { traffic: load(40) })] };
    const { candidates, lighter } = compare(heavy, light);
    expect(candidates.map(({ wire, requests }) => [wire, requests])).toEqual([
      [90, 2],
      [40, 2],
    ]);
    expect(lighter).toEqual(['b']);
    expect(compare(light, light).lighter).toEqual([]);
  });

  test('what was loaded in another state does not count', () => {
    const later = render(320, { traffic: load(900), variant: 'minute' });
    const [one] = compare({ renders: [render(320, { traffic: load(1) }), later] }, {}).candidates;
    expect([one!.wire, one!.heights]).toEqual([
      1,
      [{ slot: 'column', viewport: '320', height: null }],
    ]);
  });

  test('one that fits everywhere fits better, else that which does so in the narrowest slot', () => {
    const narrow = { fitsFrom: 300, renders: [render(320, { fits: false })] };
    const wide = { fitsFrom: 600, renders: [render(320, { fits: false })] };
    const known = { fitsFrom: 288, renders: [render(320, { fits: true })] };
    const unknown = { fitsFrom: null, renders: [render(320, { fits: null })] };
    expect(compare(narrow, known).fitting).toEqual(['b']);
    expect(compare(known, known).fitting).toEqual([]);
    expect(compare(wide, narrow, unknown).fitting).toEqual(['b']);
    expect(compare(unknown, {}).candidates.map(({ fits }) => fits)).toEqual([null, true]);
    expect(compare({ renders: [] }, {}).candidates[0]!.fits).toBeNull();
  });

  test('one asks less that contacts fewer and stores less', () => {
    const none = { contacts: [] };
    const one = { contacts: [contact('a.example')] };
    const storing = { contacts: [contact('a.example', 3)] };
    expect(compare(one, none).lessAsking).toEqual(['b']);
    expect(compare(one, storing).lessAsking).toEqual(['a']);
    expect(compare(one, one).lessAsking).toEqual([]);
    const two = { contacts: [contact('a.example'), contact('b.example')] };
    expect(compare(storing, two).lessAsking).toEqual([]);
  });

  test('what was not seen of one is not known, and no better', () => {
    const unheard = { gaps: [gap], renders: [render(320, {})] };
    const { candidates, lighter, lessAsking } = compare(
      unheard,
      { renders: [render(320, { traffic: load(10) })], contacts: [contact('a.example')] },
      { renders: [render(320, { traffic: load(20) })], contacts: [contact('a.example')] },
    );
    expect(candidates[0]).toMatchObject({ wire: null, requests: null, scripts: null, stored: 0 });
    expect(candidates[0]!.unseen).toEqual(['the page was left']);
    expect([lighter, lessAsking]).toEqual([['b'], []]);
    const unstored = compare({ gaps: [{ ...gap, kind: 'stored' }] }, {}).candidates[0]!;
    expect([unstored.stored, unstored.wire]).toEqual([null, 0]);
  });

  test('what all have equally often is told once, what not the heaviest first', () => {
    const waived = {
      snippet: null,
      piece: null,
      reason: 'x',
      until: '2026-01-01',
      by: null,
      expired: false,
    };
    const slot = makeFinding();
    const grave = makeFinding({ id: 'page-hangs', level: 'blocker' });
    const advice = makeFinding({ id: 'off-centre', level: 'advice' });
    const { findings, common } = compare(
      { findings: [advice, slot, slot, grave] },
      { findings: [advice, slot, makeFinding({ id: 'frame-refused', waiver: waived })] },
    );
    expect(findings).toEqual([
      { id: 'page-hangs', level: 'blocker', counts: [1, 0] },
      { id: 'slot-overflow', level: 'concern', counts: [2, 1] },
    ]);
    expect(common).toEqual(['off-centre']);
  });
});

describe('two runs', () => {
  const hold = (before: Partial<SnippetReport>[], after: Partial<SnippetReport>[]) => {
    const toRun = (name: string, all: Partial<SnippetReport>[]) => ({
      name,
      document: makeDocument(all.map((one) => makeSnippet(one))),
    });
    const comparison = compareRuns(toRun('one', before), toRun('two', after));
    expect(runComparisonSchema.parse(comparison)).toEqual(comparison);
    return comparison;
  };
  const [a, b] = [makeFinding({ key: 'a' }), makeFinding({ key: 'b', id: 'page-hangs' })];

  test('are held against each other by the names of snippets and the keys of findings', () => {
    const { changed, same, gone, ...more } = hold(
      [{ name: 'x', findings: [a] }, { name: 'y' }, { name: 'old' }],
      [{ name: 'x', findings: [b] }, { name: 'y' }, { name: 'new', verdict: 'hold' }],
    );
    expect([same, gone, more.new]).toEqual([1, ['old'], [{ name: 'new', verdict: 'hold' }]]);
    expect(changed).toMatchObject([
      { name: 'x', new: [{ id: 'page-hangs' }], gone: [{ key: 'a' }] },
    ]);
    expect([more.before, more.after].map(({ name, snippets }) => [name, snippets])).toEqual([
      ['one', 3],
      ['two', 3],
    ]);
  });

  test('one of another level is heavier or lighter', () => {
    const heavier = makeFinding({ key: 'a', level: 'blocker' });
    const up = hold([{ findings: [a] }], [{ findings: [heavier] }]).changed[0]!;
    expect([up.heavier.length, up.lighter.length, up.new.length]).toEqual([1, 0, 0]);
    const down = hold([{ findings: [heavier] }], [{ findings: [a] }]).changed[0]!;
    expect([down.heavier.length, down.lighter.length]).toEqual([0, 1]);
  });

  test('another verdict or another text is told, the same is not', () => {
    expect(hold([{}], [{}])).toMatchObject({ changed: [], same: 1 });
    const unsure = hold([{}], [{ verdict: 'unsure', gaps: [gap, gap] }]).changed[0]!;
    expect([unsure.before, unsure.after, unsure.unseen]).toEqual([
      ...['clear', 'unsure', ['the page was left']],
    ]);
    expect(hold([{ hash: '1' }], [{ hash: '2' }]).changed[0]!.rewritten).toBe(true);
  });
});
