import { expect, test } from '@jest/globals';
import frameRefused from '../../src/checks/frames/frame-refused.js';
import type { Evidence, FrameFact, RequestFact } from '../../src/core/evidence.js';
import { getDefaultHouse } from '../../src/core/house/read.js';
import { judgeSnippet } from '../../src/core/judge/judge.js';
import { readMarkup } from '../../src/core/markup/markup.js';
import { planRenders } from '../../src/core/plan.js';
import { makeLost } from '../../src/render/bounds/lost.js';

const house = getDefaultHouse();
const ADDRESS = 'https://player.loam.example/watch/talk';
const text = `<iframe src="${ADDRESS}"></iframe>`;

test.each<[string, Partial<RequestFact>, string[]]>([
  [
    'forbidden, and the browser kept to it',
    { forbidsFrames: 'X-Frame-Options: deny', failed: 'blocked' },
    ['frame-refused'],
  ],
  [
    'a header that did not keep it from being shown',
    { forbidsFrames: 'X-Frame-Options: allowall' },
    [],
  ],
  ['gone', { status: 410 }, ['frame-refused']],
  ['not for programs', { status: 403 }, []],
  ['no answer', { status: null, failed: 'no-answer' }, ['frame-refused']],
  [
    'no answer, as the run was offline',
    { status: null, failed: 'no-answer', refused: { kind: 'offline', words: '' } },
    [],
  ],
  [
    'not looked up in time',
    { status: null, failed: 'no-answer', refused: { kind: 'no-lookup', words: '' } },
    [],
  ],
])('%s', (_name, given, ids) => {
  const [render] = planRenders('x', house, house);
  const box = { x: 0, y: 0, width: 300, height: 150 };
  const frame = { from: { offset: 0 }, address: ADDRESS, box } as FrameFact;
  const request = {
    first: ADDRESS,
    type: 'document',
    status: 200,
    failed: null,
    refused: null,
    forbidsFrames: null,
    sharedWith: null,
  };
  const traffic = [{ ...request, ...given } as RequestFact];
  const evidence: Evidence = { ...makeLost(render!, 0, ''), gaps: [], frames: [frame], traffic };
  const { report } = judgeSnippet({
    snippet: { name: 'x', path: null, text },
    markup: readMarkup(text),
    house,
    evidence: [evidence],
    baselines: new Map(),
    checks: [frameRefused],
    today: '2026-01-01',
    markupOnly: null,
  });
  expect(report.findings.map(({ id }) => id)).toEqual(ids);
});
