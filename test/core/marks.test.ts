import { expect, test } from '@jest/globals';
import { CHECKS } from '../../src/checks/index.js';
import type { ElementFact, Evidence } from '../../src/core/evidence.js';
import { getDefaultHouse } from '../../src/core/house/read.js';
import { judgeSnippet } from '../../src/core/judge/judge.js';
import { readMarkup } from '../../src/core/markup/markup.js';
import { planRenders } from '../../src/core/plan.js';
import { makeLost } from '../../src/render/bounds/lost.js';

const house = getDefaultHouse();
const TEXT = '<p>Beans</p><img src="beans.png">';

const element = (given: Partial<ElementFact>): ElementFact => ({
  id: 1,
  parent: null,
  tag: 'img',
  from: { offset: 12 },
  selector: null,
  box: { x: 16, y: 40, width: 100, height: 80 },
  inkLeft: 16,
  inkRight: 116,
  early: null,
  shown: true,
  exposed: true,
  clipped: false,
  style: {} as ElementFact['style'],
  ...given,
});

const UNDRAWN = {
  ...{ pixels: null, drawn: null, fit: 'fill', pixelated: false, lazy: false, pushes: 0 },
};

function getMarks(text: string, elements: ElementFact[]) {
  const evidence = planRenders('x', house, house).map((render): Evidence => ({
    ...makeLost(render, 0, ''),
    gaps: [],
    elements,
    pictures: elements
      .filter(({ tag }) => tag === 'img')
      .map((one) => ({ ...one, ignored: false, loaded: true, address: '', name: null }))
      .map((one) => ({ ...one, ...UNDRAWN })),
  }));
  const { report } = judgeSnippet({
    snippet: { name: 'x', path: null, text },
    markup: readMarkup(text),
    house,
    evidence,
    baselines: new Map(),
    checks: CHECKS.filter(({ id }) => /^(picture-without-alt|attribute-misspelt)$/.test(id)),
    today: '2026-01-01',
    markupOnly: null,
  });
  return { report, marks: report.renders.map(({ marks }) => marks) };
}

test('a culprit is marked in every render where it was seen, with its finding’s number', () => {
  const { marks, report } = getMarks(TEXT, [element({})]);
  expect(report.findings.map(({ id }) => id)).toEqual(['picture-without-alt']);
  expect(marks).toHaveLength(4);
  expect(marks[0]).toEqual([
    { number: 1, level: 'blocker', box: { x: 16, y: 40, width: 100, height: 80 } },
  ]);
});

test('what only the markup shows is marked everywhere; what is not to be seen nowhere', () => {
  const text = '<iframe title="Map" allowfulscreen></iframe>';
  const frame = element({ tag: 'iframe', from: { offset: 0 } });
  expect(getMarks(text, [frame]).marks.map((list) => list.length)).toEqual([1, 1, 1, 1]);
  expect(getMarks(text, [{ ...frame, shown: false }]).marks.flat()).toEqual([]);
});

test('what a script made is found by its selector', () => {
  const made = { from: { script: 0, line: null }, selector: 'div > img' };
  const text = '<script>document.body.append(new Image())</script>';
  const { marks } = getMarks(text, [element(made), element({ ...made, id: 2, selector: 'b' })]);
  expect(marks[0]!.map(({ number }) => number)).toEqual([1, 2]);
});
