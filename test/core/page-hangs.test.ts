import { expect, test } from '@jest/globals';
import pageHangs from '../../src/checks/page/page-hangs.js';
import type { Evidence, Hang } from '../../src/core/evidence.js';
import { getDefaultHouse } from '../../src/core/house/read.js';
import { judgeSnippet } from '../../src/core/judge/judge.js';
import { readMarkup } from '../../src/core/markup/markup.js';
import { planRenders } from '../../src/core/plan.js';
import { makeLost } from '../../src/render/bounds/lost.js';

const house = getDefaultHouse();
const text = '<script>\nfor (;;) {}\nsow(() => { for (;;) beds.push(1) })\n</script>';
const HUNG: Hang = {
  from: { offset: text.indexOf('sow') },
  address: null,
  line: 3,
  functionName: null,
  seconds: 5,
};
const BROKEN: Hang = { ...HUNG, from: null, line: null, seconds: null };

function judge(hangs: readonly (Hang | null)[]) {
  const renders = planRenders('x', house, house);
  const evidence = hangs.map((hung, i): Evidence => {
    const lost = makeLost(renders[i]!, 0, '');
    return { ...lost, gaps: [], scripts: { ...lost.scripts, hung } };
  });
  const { report } = judgeSnippet({
    snippet: { name: 'x', path: null, text },
    markup: readMarkup(text),
    house,
    evidence,
    baselines: new Map(),
    checks: [pageHangs],
    today: '2026-01-01',
    markupOnly: null,
  });
  return report.findings.map(({ where, seen }) => [where.line, seen.length]);
}

test.each([
  ['hangs', [HUNG], [[3, 1]]],
  ['breaks down', [BROKEN, BROKEN], [[2, 2]]],
  ['breaks down here and hangs there', [BROKEN, null, HUNG], [[3, 2]]],
  ['does neither', [null, null], []],
])('a page that %s', (_, hangs, found) => {
  expect(judge(hangs)).toEqual(found);
});
