import { describe, expect, test } from '@jest/globals';
import { defineCheck, makeSeen, type Check, type RenderOf } from '../../src/core/check.js';
import { FACT_KINDS, type Evidence, type FactKind } from '../../src/core/evidence.js';
import { getDefaultHouse } from '../../src/core/house/read.js';
import { judgeSnippet } from '../../src/core/judge/judge.js';
import { readMarkup } from '../../src/core/markup/markup.js';
import { planRenders } from '../../src/core/plan.js';
import { makeLost } from '../../src/render/bounds/lost.js';

const house = getDefaultHouse();
const [narrow, , , wide] = planRenders('x', house, house);
const TEXT = '<p>Beans</p>';

/** A page that is so wide, so long after it came to rest. */
function look(render: typeof narrow, width: number, after: number | null = null): Evidence {
  const variant = after === null ? ('as-is' as const) : ('minute' as const);
  const made = { ...makeLost({ ...render!, variant, after }, 0, ''), gaps: [] };
  made.page.atLoad.scrollWidth = width;
  return made;
}

const FACT = {
  where: { offset: 0, endOffset: 3 },
  culprit: { at: 'snippet' as const, what: 'p' },
  data: null,
};

function makeCheck(id: string, given: Partial<Parameters<typeof defineCheck>[0]> = {}): Check {
  return defineCheck({
    ...{ id, subject: 'page', level: 'concern', title: '', decided: '', standard: null },
    ...{ needs: ['page'], markup: false, samples: [null], examples: { faulty: [], sound: [] } },
    judge: ({ renders }: { renders: readonly Evidence[] }) =>
      (renders as never as { page: Evidence['page']; at: never }[])
        .filter(({ page }) => page.atLoad.scrollWidth > 500)
        .map((one) => ({
          where: { offset: 0, endOffset: 3 },
          culprit: { at: 'snippet', what: id },
          data: null,
          seen: [makeSeen(one, {})],
        })),
    says: () => ({ message: 'It is wide.', notice: '', cure: '' }),
    ...given,
  } as never);
}

function judge(evidence: readonly Evidence[], checks: readonly Check[] = [WIDE]) {
  const snippet = { name: 'x', path: null, text: TEXT };
  const rest = { baselines: new Map(), checks, today: '2026-11-30', markupOnly: null };
  const { report, notJudged } = judgeSnippet({
    ...{ snippet, markup: readMarkup(TEXT), house, evidence },
    ...rest,
  });
  return { ...report, notJudged };
}

const WIDE = makeCheck('page-hangs');

describe('what comes later', () => {
  test('is a finding with its moment, once for both windows', () => {
    const late = [look(narrow, 900, 12), look(wide, 900, 20), look(narrow, 900, 60)];
    const { findings } = judge([look(narrow, 0), look(wide, 0), ...late]);
    expect(findings).toHaveLength(1);
    expect(findings[0]!.message).toBe(
      'It is wide. It comes later: within 20 s after the page has come to rest.',
    );
    expect(findings[0]!.seen.map(({ width, after }) => [width, after])).toEqual([
      [320, 12],
      [1280, 20],
    ]);
  });

  test('is not told again where it was there at rest', () => {
    const { findings } = judge([look(narrow, 900), look(narrow, 900, 12)]);
    expect(findings.map(({ message }) => message)).toEqual(['It is wide.']);
    expect(findings[0]!.seen).toHaveLength(1);
  });

  test('nor where something else explains it at rest', () => {
    const explaining = makeCheck('page-overflow', { explains: [{ findings: ['page-hangs'] }] });
    const checks = [explaining, WIDE];
    const both = [look(narrow, 900), look(narrow, 900, 12)];
    expect(judge(both, checks).findings.map(({ id }) => id)).toEqual(['page-overflow']);
  });

  test('is judged beside the windows in which nothing changed', () => {
    const alone = makeCheck('page-overflow', {
      judge: ({ renders }: { renders: readonly RenderOf<FactKind>[] }) =>
        renders.length > 1 ? [] : renders.map((one) => ({ ...FACT, seen: [makeSeen(one, {})] })),
    } as never);
    const apart = makeCheck('page-hangs', {
      judge: ({ renders }: { renders: readonly RenderOf<FactKind>[] }) => {
        const widths = renders.map(({ page }) => page.atLoad.scrollWidth);
        const seen = renders.map((one) => makeSeen(one, {}));
        return new Set(widths).size > 1 ? [{ ...FACT, seen }] : [];
      },
    } as never);
    const rest = [look(narrow, 0), look(wide, 0)];
    const { findings } = judge([...rest, look(wide, 900, 12)], [alone, apart]);
    expect(
      findings.map(({ id, seen }) => [id, seen.map(({ width, after }) => [width, after])]),
    ).toEqual([['page-hangs', [[1280, 12]]]]);
  });

  test('may put an end to what lasts only until then', () => {
    const lasting = makeCheck('nothing-rendered', { lasts: true });
    const evidence = [look(narrow, 900), look(wide, 900), look(wide, 0, 30)];
    const ids = (checks: Check[]) => judge(evidence, checks).findings.map(({ id }) => id);
    expect(ids([lasting, WIDE])).toEqual(['nothing-rendered', 'page-hangs']);
    const over = [look(narrow, 900), look(narrow, 0, 30)];
    expect(judge(over, [lasting, WIDE]).findings.map(({ id }) => id)).toEqual(['page-hangs']);
    expect(judge([look(narrow, 900)], [lasting]).findings).toHaveLength(1);
    expect(judge([look(narrow, 0), look(narrow, 900, 30)], [lasting]).findings).toEqual([]);
  });

  test('is judged by no check that reads what was not looked for then, or other conditions', () => {
    const late = look(narrow, 900, 12);
    const sought = FACT_KINDS.filter((kind) => kind !== 'handling');
    const hands = makeCheck('keyboard-trapped', { needs: ['page', 'handling'] });
    const other = makeCheck('page-overflow', {
      needs: { kinds: ['page'], variants: ['as-is', 'filtered'] },
    });
    const evidence = [look(narrow, 0), { ...late, sought }];
    expect(judge(evidence, [hands, other]).findings).toEqual([]);
    expect(judge(evidence).findings).toHaveLength(1);
  });

  test('and was not seen is a gap, said once where it was none at rest', () => {
    const gap = { kind: 'page' as const, why: 'it was busy', seen: null, kept: null };
    const late = { ...look(narrow, 0, 12), gaps: [gap] };
    const { notJudged } = judge([look(narrow, 0), late]);
    expect(notJudged.map(({ why }) => why)).toEqual([
      'it was busy (phone-320, column, within 12 s)',
    ]);
    const before = { ...look(narrow, 0), gaps: [gap] };
    expect(judge([before, late]).notJudged.map(({ why }) => why)).toEqual([
      'it was busy (phone-320, column)',
    ]);
  });
});
