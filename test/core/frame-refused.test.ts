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

function makeInner(width: number): FrameFact['inner'] {
  return { width, height: 150, scrollWidth: width, scrollHeight: 150 };
}

test.each<[string, Partial<RequestFact>, string[], Partial<FrameFact>?]>([
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
  ['no content', { status: 204, unpacked: 0, failed: 'cancelled' }, ['frame-refused']],
  ['an empty answer', { unpacked: 0 }, ['frame-refused']],
  ['one that was not all there', { unpacked: 0, failed: 'cancelled' }, []],
  ['a document that hides itself', {}, ['frame-refused'], { inner: makeInner(0) }],
  ['one that is drawn', {}, [], { inner: makeInner(300) }],
  ['one in a frame that is hidden', {}, [], { inner: makeInner(0), shown: false }],
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
])('%s', (_name, given, ids, framed = {}) => {
  const [render] = planRenders('x', house, house);
  const box = { x: 0, y: 0, width: 300, height: 150 };
  const known = { from: { offset: 0 }, address: ADDRESS, box, shown: true, attributes: {} };
  const frame = { ...known, ...framed } as FrameFact;
  const request = {
    ...{ address: ADDRESS, first: ADDRESS, host: 'player.loam.example', from: null, by: null },
    type: 'document',
    status: 200,
    unpacked: 900,
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
