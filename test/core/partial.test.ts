import { expect, test } from '@jest/globals';
import nothingRendered from '../../src/checks/page/nothing-rendered.js';
import type { Evidence, Gap } from '../../src/core/evidence.js';
import { getDefaultHouse } from '../../src/core/house/read.js';
import { judgeSnippet } from '../../src/core/judge/judge.js';
import { readMarkup } from '../../src/core/markup/markup.js';
import { planRenders } from '../../src/core/plan.js';
import { makeLost } from '../../src/render/bounds/lost.js';

const house = getDefaultHouse();
const text = '<div class="seed-box"></div>';

/** What is found where nothing of the snippet was seen, with these gaps. */
function getIds(gaps: Gap[]): string[] {
  const renders = planRenders('x', house, house);
  return judgeSnippet({
    snippet: { name: 'x', path: null, text },
    markup: readMarkup(text),
    house,
    evidence: renders.map((render): Evidence => ({ ...makeLost(render, 0, ''), gaps })),
    baselines: new Map(),
    checks: [nothingRendered],
    today: '2026-01-01',
    markupOnly: null,
  }).report.findings.map(({ id }) => id);
}

test('what was read in part only does not show that nothing is there', () => {
  const gap = { kind: 'elements' as const, why: 'more elements than are read', seen: 9 };
  expect(getIds([])).toEqual(['nothing-rendered']);
  expect(getIds([{ ...gap, kept: 5 }])).toEqual([]);
  expect(getIds([{ ...gap, kind: 'traffic', kept: 5 }])).toEqual(['nothing-rendered']);
  expect(getIds([{ ...gap, kept: null }])).toEqual([]);
});
