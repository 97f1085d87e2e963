import { describe, expect, test } from '@jest/globals';
import type { Baseline } from '../../src/core/evidence.js';
import { makeBaseline } from '../../src/render/empty/baseline.js';
import type { RawElement } from '../../src/render/in-page/elements.js';
import { makeLost } from '../../src/render/bounds/lost.js';
import {
  compareParts,
  listMade,
  partElements,
  placeElements,
  type Whose,
} from '../../src/render/collect/own.js';
import { ServedPage } from '../../src/render/page/served-page.js';
import type { Rendered } from '../../src/render/stage.js';
import { getDefaultHouse } from '../../src/core/house/read.js';
import { planRenders } from '../../src/core/plan.js';

const host = {
  slots: ['article'],
  pieces: ['<html><head></head><body><nav>Seed</nav><main>', '</main></body></html>'],
};
const style = {
  display: 'block',
  position: 'static',
  float: 'none',
  width: 'auto',
  minWidth: 'auto',
  maxWidth: 'none',
  overflowX: 'visible',
};

/** The page as read, each element a child of the one named; `signature` null for what came in with a piece. */
function makeRaw(
  rows: [tag: string, parent: number | null, signature: string | null, x?: number][],
) {
  const listed = rows.map(({ 2: signature }, id) => ({ signature, id })).filter(hasSignature);
  const placeOf = (id: number | null) => listed.findIndex((one) => one.id === id);
  const order = listed.map(({ signature, id }) => ({ signature, parent: placeOf(rows[id]![1]) }));
  let at = 0;
  const elements = rows.map(([tag, parent, signature, x = 0], id): RawElement => ({
    id,
    parent,
    tag,
    order: signature === null ? null : at++,
    late: null,
    clickable: true,
    words: '',
    said: { says: '', leads: '' },
    early: null,
    name: '',
    box: { x, y: id, width: 100, height: 10 },
    inkLeft: x,
    inkRight: x + 100,
    shown: true,
    exposed: true,
    clipped: false,
    style,
    look: 'black',
    slot: null,
  }));
  return { elements, order, late: {}, unplaced: false };
}

function hasSignature(one: {
  signature: string | null;
  id: number;
}): one is { signature: string; id: number } {
  return one.signature !== null;
}

const HOST_ROWS: Parameters<typeof makeRaw>[0] = [
  ['html', null, 'html'],
  ['head', 0, 'head'],
  ['body', 0, 'body'],
  ['nav', 2, 'nav'],
  ['main', 2, 'main'],
];
const EMPTY: Baseline = {
  viewport: 'x',
  scrollWidth: 390,
  steady: true,
  parts: {},
  scrolled: 0,
  settings: {},
  sheets: null,
  requests: [],
  stored: [],
  errors: [],
  replaced: [],
  flashing: [],
  jumps: 0,
  wide: [],
  made: [],
};
const WHOSE: Whose = {
  of: 0,
  changes: true,
  hostChanges: false,
  script: 0,
  baseline: EMPTY,
  makers: new Map(),
};

function part(
  snippet: string,
  more: Parameters<typeof makeRaw>[0],
  whose: Partial<Whose> = {},
  rows = HOST_ROWS,
) {
  const raw = makeRaw([...rows, ...more]);
  const snippets = [{ slot: 'article', text: snippet }];
  const placed = placeElements(new ServedPage({ host, snippets }), raw.elements, raw);
  return partElements(placed, raw.elements, { ...WHOSE, ...whose });
}

function render(
  rows = HOST_ROWS,
  more: Parameters<typeof makeRaw>[0] = [],
  scrollWidth = 390,
): Rendered {
  const house = getDefaultHouse();
  const evidence = makeLost(planRenders('x', house, house)[0]!, 0, '');
  evidence.page.atLoad.scrollWidth = scrollWidth;
  return {
    evidence: [evidence],
    learned: [],
    served: new ServedPage({ host, snippets: [] }),
    parted: part('', more, { baseline: null }, rows),
    requests: ['https://www.seedlibrary.example/site.css'],
    settings: {},
    sheets: [],
    shots: [],
    later: [],
    waits: false,
    rested: null,
    moved: false,
    stuck: null,
    unread: false,
  };
}

describe('whose an element is', () => {
  test('the parser’s by its place in the source, a script’s by a selector', () => {
    const { elements, parts } = part('<p>a</p><script></script>', [
      ['p', 4, 'p'],
      ['script', 4, 'script'],
      ['div', 2, 'div|class=w'],
      ['b', 7, null],
    ]);
    expect(elements.map(({ tag, from, selector }) => [tag, from, selector])).toEqual([
      ['p', { offset: 0 }, null],
      ['script', { offset: 8 }, null],
      ['div', { script: 0, line: null }, 'body > div'],
      ['b', { script: 0, line: null }, 'body > div > b'],
    ]);
    expect([...parts.values()].map(({ tag }) => tag)).toEqual([
      'html',
      'head',
      'body',
      'nav',
      'main',
    ]);
  });

  test('what the page’s own scripts make is not the snippet’s', () => {
    const baseline = makeBaseline([render(HOST_ROWS, [['div', 2, 'div']]), render()]);
    expect(baseline.made).toEqual(['body > div']);
    expect(
      part(
        '<p>',
        [
          ['p', 4, 'p'],
          ['div', 2, 'div'],
        ],
        { baseline },
      ).elements.map(({ tag }) => tag),
    ).toEqual(['p']);
  });
});

test('of several snippets each has its own', () => {
  const more: Parameters<typeof makeRaw>[0] = [['p', 4, 'p']];
  expect(part('<p>', more).elements).toHaveLength(1);
  expect(part('<p>', more, { of: 1 }).elements).toEqual([]);
});

describe('where both the page and the snippet have code', () => {
  const MORE: Parameters<typeof makeRaw>[0] = [
    ['p', 4, 'p'],
    ['div', 2, 'div'],
    ['img', 6, null],
  ];
  const whose = (given: Partial<Whose>) =>
    part('<p>', MORE, { hostChanges: true, ...given }).elements.map(({ tag, from }) => [tag, from]);

  test('who made it counts, for all that stands in it', () => {
    const raw = makeRaw([...HOST_ROWS, ...MORE]);
    const snippets = [{ slot: 'article', text: '<p>' }];
    const [made] = listMade(placeElements(new ServedPage({ host, snippets }), raw.elements, raw));
    expect(made).toBe(6);
    const script = { script: 40, line: null };
    const by = (snippet: number) =>
      new Map([[made!, { to: 'snippet' as const, snippet, from: script }]]);
    expect(whose({ makers: by(1) })).toEqual([['p', { offset: 0 }]]);
    expect(whose({ makers: by(0) })).toEqual([
      ['p', { offset: 0 }],
      ['div', script],
      ['img', script],
    ]);
    expect(whose({ makers: new Map([[made!, { to: 'host' }]]) })).toEqual([['p', { offset: 0 }]]);
  });

  test('a snippet without code makes nothing', () => {
    expect(whose({ changes: false })).toEqual([['p', { offset: 0 }]]);
    expect(whose({})).toHaveLength(3);
  });
});

const NOWHERE = { x: 0, y: 0, width: 0, height: 0 };

describe('host parts against the page without the snippet', () => {
  const moved = (x: number): typeof HOST_ROWS =>
    HOST_ROWS.map((row) => (row[0] === 'nav' ? ['nav', 2, 'nav', x] : row));
  const gone: typeof HOST_ROWS = [
    ['html', null, 'html'],
    ['head', 0, 'head'],
    ['body', 0, 'body'],
    ['main', 2, 'main'],
  ];

  test('a part that is moved sideways or gone is told, with both readings', () => {
    const baseline = makeBaseline([render(), render()]);
    expect(compareParts(part('', [], { baseline }).parts, baseline, NOWHERE)).toEqual([]);
    expect(
      compareParts(part('', [], { baseline }, moved(40)).parts, baseline, NOWHERE),
    ).toMatchObject([{ tag: 'nav', without: { box: { x: 0 } }, with: { box: { x: 40 } } }]);
    expect(compareParts(part('', [], { baseline }, gone).parts, baseline, NOWHERE)).toMatchObject([
      { tag: 'nav', with: null },
    ]);
  });

  test('an unsteady part is never blamed, and the wider of two pages counts', () => {
    const baseline = makeBaseline([render(), render(moved(9), [], 500)]);
    expect(compareParts(part('', [], { baseline }, moved(40)).parts, baseline, NOWHERE)).toEqual(
      [],
    );
    expect(baseline).toMatchObject({
      scrollWidth: 500,
      requests: ['https://www.seedlibrary.example/site.css'],
    });
  });
});
