import { describe, expect, test } from '@jest/globals';
import { CHECKS } from '../../src/checks/index.js';
import {
  CAPABILITIES,
  listBounds,
  type CapabilityName,
  type Engines,
} from '../../src/core/engines.js';
import { SEEN_KINDS, type Evidence, type FactKind } from '../../src/core/evidence.js';
import { judgeSnippet, type Judgement } from '../../src/core/judge/judge.js';
import { readMarkup } from '../../src/core/markup/markup.js';
import { getTraits, STILL } from '../../src/core/markup/traits.js';
import { KINDS } from '../../src/facts/kinds.js';
import { getHouse, listRecorded, type Recorded } from '../support/recorded.js';

type Lack = CapabilityName | FactKind;
const names = Object.keys(CAPABILITIES) as CapabilityName[];
const faulty = listRecorded().filter(({ key }) => / faulty: /.test(key) && !/ mended$/.test(key));
/** A page and a snippet that do all that they can. */
const WORST = { own: { ...STILL, changes: true, live: true, moves: true }, ownPage: true };
const whole = new Map<string, Judgement>();

function judge({ code, under, evidence, baselines }: Recorded, lacks: Lack[] = []): Judgement {
  const engines: Engines = { chromium: { title: 'Paper', lacks } };
  const wanted = new Set(lacks.flatMap((lack) => getLost(lack)));
  return judgeSnippet({
    snippet: { name: 'example', path: null, text: code },
    markup: readMarkup(code),
    house: getHouse(under),
    evidence: evidence.map((one) => empty(one, wanted)),
    baselines: new Map(baselines),
    checks: CHECKS,
    today: '2026-01-01',
    markupOnly: null,
    ...(lacks.length > 0 && { engines }),
  });
}

/** The kinds that may be lost as a whole without it. */
function getLost(lack: Lack): readonly FactKind[] {
  return lack in CAPABILITIES ? CAPABILITIES[lack as CapabilityName].bears : [lack as FactKind];
}

/** Whether a check reads what is lost, in a page where anything depends on it. */
function isTouchedBy(lack: Lack) {
  const lost = getLost(lack);
  return ({ key, code, under }: Recorded & { key: string }): boolean => {
    const wishes = { own: getTraits(readMarkup(code)), ownPage: under?.page !== undefined };
    const check = CHECKS.find(({ id }) => key.startsWith(`${id} `))!;
    const reads = check.needs.kinds.some((kind) => lost.includes(kind));
    return reads && listBounds({ title: 'Paper', lacks: [lack] }, wishes).length > 0;
  };
}

function empty(one: Evidence, kinds: ReadonlySet<FactKind>): Evidence {
  const emptied = [...kinds].map((kind) => [kind, KINDS[kind].empty]);
  return { ...one, ...Object.fromEntries(emptied) };
}

describe('an engine that cannot tell something', () => {
  test.each<Lack>([...SEEN_KINDS, ...names])('%s', (lack) => {
    const always = listBounds({ title: 'Paper', lacks: [lack] }, WORST);
    expect(always.map(({ kind }) => kind)).toEqual([...getLost(lack)]);
    const silent = faulty.filter(isTouchedBy(lack)).flatMap(({ key, ...recorded }) => {
      const known = whole.get(key) ?? judge(recorded);
      whole.set(key, known);
      const less = judge(recorded, [lack]);
      const still = new Set(less.report.findings.map(({ id }) => id));
      const told = new Set(less.notJudged.map(({ id }) => id));
      const lost = known.report.findings.filter(({ id }) => !still.has(id) && !told.has(id));
      const lighter = known.report.verdict === 'hold' && less.report.verdict === 'clear';
      return lost.length > 0 || lighter ? [`${key}: ${lost.map(({ id }) => id).join()}`] : [];
    });
    expect(silent).toEqual([]);
  });

  test('matters only where something depends on it', () => {
    const engine = { title: 'Paper', lacks: ['makers' as const] };
    expect(listBounds(engine, { own: STILL, ownPage: true })).toEqual([]);
    expect(listBounds(engine, { own: WORST.own, ownPage: false })).toEqual([]);
    expect(listBounds(engine, WORST)).toContainEqual({
      kind: 'elements',
      why: 'Paper does not tell who made an element',
      seen: null,
      kept: 1,
    });
  });
});

test('what was not looked for is not taken for sound', () => {
  const slow = faulty.find(({ key }) => key.startsWith('text-too-small'))!;
  const sought = SEEN_KINDS.filter((kind) => kind !== 'texts');
  const evidence = slow.evidence.map((one) => ({ ...one, texts: [], sought }));
  const { notJudged, report } = judge({ ...slow, evidence });
  expect(notJudged.map(({ id, why }) => [id, why])).toContainEqual([
    'text-too-small',
    'it was not looked for in this run',
  ]);
  expect(report.renders.length).toBeGreaterThan(0);
});
