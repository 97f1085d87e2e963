import { describe, expect, test } from '@jest/globals';
import { parse, stringify } from 'yaml';
import { CHECKS } from '../../src/checks/index.js';
import { spend, type FindingBudget } from '../../src/core/budget.js';
import type { House, Level } from '../../src/core/house/house.js';
import { getDefaultHouse, readHouse } from '../../src/core/house/read.js';
import { judgeSnippet } from '../../src/core/judge/judge.js';
import { listIdleWaivers } from '../../src/core/judge/waivers.js';
import { readMarkup } from '../../src/core/markup/markup.js';
import type { Counts, Finding, SnippetReport } from '../../src/core/run.js';
import { formatWaivers } from '../../src/formats/waivers.js';
import { makeDocument, makeSnippet } from '../support/document.js';

type Waiver = House['waivers'][number];

const TODAY = '2026-06-01';
const house = getDefaultHouse();
const open = (path: string) => `<iframe src="https://maps.fernmap.example/${path}">`;
const frame = (path: string) => `${open(path)}</iframe>`;
const TEXT = `${frame('beds')}\n${frame('glasshouse')}`;

function judge(
  text: string,
  waivers: Waiver[] = [],
  before?: ReadonlyMap<string, Level>,
): SnippetReport {
  const snippet = { name: 'map.html', path: null, text };
  const { report } = judgeSnippet({
    ...{ snippet, markup: readMarkup(text), house: { ...house, waivers } },
    ...{ evidence: [], baselines: new Map(), markupOnly: 'so', today: TODAY },
    checks: CHECKS.filter(({ id }) => id === 'frame-unnamed'),
    ...(before && { before }),
  });
  return { ...report, hash: '' };
}

const waive = (given: Partial<Waiver>): Waiver => ({
  ...{ finding: 'frame-unnamed', until: '2027-01-01', reason: 'spring' },
  ...given,
});
const named = (given: Partial<Waiver>) => waive({ snippet: 'map.html', ...given });
const listWaived = ({ findings }: SnippetReport) =>
  findings.map(({ waiver }) => waiver !== null && !waiver.expired);

describe('a waiver for a piece', () => {
  test.each<[string, boolean[]]>([
    ['fernmap.example/beds', [true, false]],
    [open('glasshouse'), [false, true]],
    ['<iframe … glasshouse', [false, true]],
    ['glasshouse … <iframe', [false, false]],
    ['fernmap.example', [true, true]],
    ['no name', [true, true]],
    ['fernmap.example/workshop', [false, false]],
  ])('%s', (piece, expected) => {
    expect(listWaived(judge(TEXT, [waive({ piece })]))).toEqual(expected);
  });

  test('holds however its white space is written', () => {
    const text = TEXT.replaceAll(' src', '\n   src');
    expect(listWaived(judge(text, [waive({ piece: open('beds') })]))).toEqual([true, false]);
  });
});

describe('a waiver that accepts nothing', () => {
  const check = { title: '', subject: '', decided: '', standard: null, level: 'concern' } as const;
  const list = (waiver: Waiver, ran = true, unseen = false) => {
    const snippets = [judge(TEXT, [waiver])];
    const notJudged = unseen ? [{ id: 'frame-unnamed', why: 'so', snippet: 'map.html' }] : [];
    const checks = [{ ...check, id: 'frame-unnamed', ran }];
    return listIdleWaivers({
      ...{ snippets, checks, notJudged, today: TODAY },
      house: { ...house, waivers: [waiver, waive({ reason: 'other' })] },
    }).filter(({ reason }) => reason === 'spring');
  };

  test('is told', () => {
    const piece = 'fernmap.example/workshop';
    const told = { snippet: 'map.html', piece, reason: 'spring', until: '2027-01-01', by: null };
    expect(list(waive({ piece, snippet: 'map.html' }))).toEqual([
      { finding: 'frame-unnamed', ...told },
    ]);
  });

  test.each<[string, Waiver, boolean, boolean]>([
    ['that one accepts', named({ piece: 'beds' }), true, false],
    ['that may be for a snippet elsewhere', waive({ piece: 'workshop' }), true, false],
    ['that is for several', waive({ snippet: '*.html', piece: 'workshop' }), true, false],
    ['that ran out', named({ piece: 'workshop', until: '2026-05-31' }), true, false],
    ['of a snippet that is not here', waive({ snippet: 'film.html' }), true, false],
    ['of what was not looked for', named({ piece: 'workshop' }), false, false],
    ['of what was not seen', named({ piece: 'workshop' }), true, true],
  ])('is not one %s', (_name, waiver, ran, unseen) => {
    expect(list(waiver, ran, unseen)).toEqual([]);
  });
});

describe('waivers that are written', () => {
  const document = makeDocument([judge(TEXT)]);
  const written = formatWaivers(document);

  test('hold for each culprit of its own, once they have a reason', () => {
    expect(written).toContain('# concern, line 1: The frame has no name.');
    expect(() => readHouse(written, 'mivket.yaml')).toThrow(/`waivers\.0\.reason`/);
    const { waivers } = parse(written) as { waivers: Waiver[] };
    expect(waivers.map(({ until }) => until)).toEqual(['2026-04-01', '2026-04-01']);
    const given = {
      waivers: waivers.map((one) => ({ ...one, until: '2027-01-01', reason: 'so' })),
    };
    const read = readHouse(stringify(given), 'mivket.yaml');
    expect(listWaived(judge(TEXT, read.waivers))).toEqual([true, true]);
    expect(listWaived(judge(`${TEXT}${frame('shop')}`, read.waivers))).toEqual([true, true, false]);
  });

  test('leave out what is waived, and pieces that nobody can read', () => {
    expect(formatWaivers(makeDocument([judge(TEXT, [waive({})])]))).toMatch(/waivers: \[\]/);
    const hidden = frame('be\u200bds');
    expect(formatWaivers(makeDocument([judge(hidden)]))).not.toContain('piece');
  });
});

describe('what an earlier run had', () => {
  const keys = judge(TEXT).findings.map(({ key }) => key);
  const known = (level: Level) => new Map([[keys[0]!, level]]);

  test('is left out, counted, and holds no more', () => {
    const { findings, known: count, causes, mended } = judge(TEXT, [], known('concern'));
    expect(findings.map(({ key, cause }) => [key, cause])).toEqual([[keys[1], 1]]);
    expect([count, causes.length, mended]).toEqual([1, 1, null]);
    const all = new Map(keys.map((key) => [key, 'concern'] as const));
    expect(judge(`<h2>Beds</h2>${TEXT}`, [], all)).toMatchObject({ findings: [], known: 2 });
  });

  test('is told where it is heavier now, and where it was heavier is left out', () => {
    expect(judge(TEXT, [], known('advice')).findings).toHaveLength(2);
    expect(judge(TEXT, [], known('blocker')).findings).toHaveLength(1);
  });
});

function getVerdictOf({ blocker }: Counts, unseen: boolean) {
  if (blocker > 0) return 'hold';
  return unseen ? 'unsure' : 'clear';
}

describe('a budget', () => {
  const check = { title: '', subject: '', decided: '', standard: null, ran: true };
  const checks = [{ ...check, id: 'frame-unnamed', level: 'blocker' as const }];
  const counts = { blocker: 1, concern: 3, advice: 5 };
  const settle = (budget: FindingBudget, given: Partial<Counts> = {}, unseen = false) => {
    const found = { ...counts, ...given };
    const verdict = getVerdictOf(found, unseen);
    const notJudged = unseen ? [{ id: 'frame-unnamed', why: 'so', snippet: 'a' }] : [];
    const findings: Finding[] = [];
    const document = makeDocument([makeSnippet({ findings })], {
      ...{ checks, verdict, notJudged, counts: found },
    });
    const spent = spend(document, budget);
    return [
      spent.verdict,
      ...spent.over.map(({ level, found: n, allowed }) => `${level} ${n}/${allowed}`),
    ];
  };

  test.each<[FindingBudget, Partial<Counts>, boolean, string[]]>([
    [{ concern: 3 }, {}, false, ['hold']],
    [{ concern: 3 }, { blocker: 0 }, false, ['clear']],
    [{ concern: 2 }, { blocker: 0 }, false, ['hold', 'concern 3/2']],
    [{ blocker: 1 }, {}, false, ['clear']],
    [{ blocker: 0 }, {}, false, ['hold', 'blocker 1/0']],
    [{ blocker: 1, advice: 4 }, {}, false, ['hold', 'advice 5/4']],
    [{ blocker: 1 }, {}, true, ['unsure']],
    [{ concern: 3 }, { blocker: 0 }, true, ['unsure']],
  ])('%j of %j', (budget, given, unseen, expected) => {
    expect(settle(budget, given, unseen)).toEqual(expected);
  });
});
