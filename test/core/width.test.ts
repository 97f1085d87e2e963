import { askFor } from '../../src/core/mend/attribute.js';
import { describe, expect, test } from '@jest/globals';
import type { CauseFact, Facts } from '../../src/core/evidence.js';
import { readMarkup } from '../../src/core/markup/markup.js';
import { applyEdits } from '../../src/core/mend/apply.js';
import { composeMend } from '../../src/core/mend/compose.js';
import { joinIntents, type Intent } from '../../src/core/mend/intent.js';
import { blameWidth, SAMPLE_WIDTH_BLAME } from '../../src/core/measure/blame-width.js';
import { listCausesOf } from '../../src/core/trial/cause.js';
import { makeSmall, takeOut, toChanges } from '../../src/core/trial/change.js';
import { describeChange } from '../../src/core/trial/describe.js';
import { diffMarkup } from '../../src/core/trial/diff.js';
import { listRemedies } from '../../src/core/trial/remedies.js';
import { settleCures } from '../../src/core/trial/settle.js';
import { listSuspects } from '../../src/core/trial/suspects.js';
import { cureWidth } from '../../src/core/words/width.js';

/** A target that is 300 px too wide, with what each piece of a code takes off that. */
function makeCause(
  code: string,
  effects: Record<string, number>,
  together: string[] = [],
): CauseFact {
  const find = (piece: string) => {
    const offset = code.indexOf(piece);
    return { offset, endOffset: offset + piece.length };
  };
  return {
    element: 7,
    by: 'reach',
    side: 'right',
    edge: 320,
    room: null,
    before: 300,
    effects: Object.entries(effects).map(([piece, px]) => ({ ...find(piece), px })),
    together: together.map(find),
  };
}

/** What is blamed for the last element of a code, and why. */
function blame(
  code: string,
  cause: CauseFact,
  { wide = 640, intents = null as Intent[] | null } = {},
) {
  const markup = readMarkup(code);
  const element = markup.elements.at(-1)!;
  const fact = {
    from: { offset: element.offset },
    selector: null,
    tag: element.name,
    box: { x: 0, y: 0, width: wide, height: 10 },
  };
  const cures = intents ? [{ intents, left: [0], harm: null }] : [];
  const causes = { targets: [cause], cures } as Facts['causes'];
  const found = blameWidth(markup, fact, { causes, cause, room: 288 });
  return {
    at: code.slice(found.where.offset, found.where.endOffset),
    why: found.reason,
    cure: cureWidth(found),
  };
}

describe('to blame is what was found by taking it out', () => {
  test.each<[string, string, Record<string, number>, string, string]>([
    [
      'what does most',
      '<p style="width: 640px; min-width: 600px">',
      { 'width: 640px': 60, 'min-width: 600px': 200 },
      'min-width: 600px',
      'size',
    ],
    [
      'of two that cure the plainer one',
      '<p style="display: flex; width: 640px">',
      { 'display: flex': 300, 'width: 640px': 300 },
      'width: 640px',
      'size',
    ],
    [
      'what cures before what does nearly as much',
      '<p style="width: 640px; gap: 9px">',
      { 'width: 640px': 290, 'gap: 9px': 300 },
      'gap: 9px',
      'room',
    ],
    [
      'a rule',
      '<style>p { padding: 0 90px }</style><p>',
      { 'padding: 0 90px': 180 },
      'padding: 0 90px',
      'room',
    ],
    ['an attribute', '<input size="90">', { 'size="90"': 300 }, 'size="90"', 'size'],
    [
      'nothing that does a little only',
      '<p style="border: 2px solid">Sow',
      { 'border: 2px solid': 4 },
      '<p style="border: 2px solid">',
      'text',
    ],
    [
      'the letters',
      '<h2 style="font-size: 60px">Seeds',
      { 'font-size: 60px': 300 },
      'font-size: 60px',
      'letters',
    ],
    [
      'the tracks',
      '<p style="grid-template-columns: 300px 300px">',
      { 'grid-template-columns: 300px 300px': 300 },
      'grid-template-columns: 300px 300px',
      'tracks',
    ],
    [
      'lines that are kept',
      '<p style="white-space: nowrap">',
      { 'white-space: nowrap': 300 },
      'white-space: nowrap',
      'text',
    ],
    [
      'an animation',
      '<p style="animation: in 1s">',
      { 'animation: in 1s': 300 },
      'animation: in 1s',
      'animation',
    ],
    ['the tag where nothing does', '<pre>', {}, '<pre>', 'text'],
    ['of a picture its nature', '<img alt="">', {}, '<img alt="">', 'content'],
  ])('%s', (_name, code, effects, at, why) => {
    expect(blame(code, makeCause(code, effects))).toMatchObject({ at, why });
  });

  test('what would fit by its width is in the wrong place', () => {
    const code = '<p style="width: 200px; margin-left: 240px">';
    const cause = makeCause(code, { 'width: 200px': 300, 'margin-left: 240px': 300 });
    expect(blame(code, cause, { wide: 200 }).at).toBe('margin-left: 240px');
    expect(blame(code, cause, { wide: 640 }).at).toBe('width: 200px');
  });

  test('of several causes the one that the cure changes', () => {
    const code = '<style>ul { display: flex; gap: 9px }</style><li>';
    const cause = makeCause(code, { 'display: flex': 250, 'gap: 9px': 260 });
    expect(blame(code, cause).at).toBe('gap: 9px');
    const offset = code.indexOf('display');
    const span = { offset, endOffset: offset + 'display: flex'.length };
    const intents: Intent[] = [{ do: 'replace-text', span, text: 'display: block' }];
    expect(blame(code, cause, { intents }).at).toBe('display: flex');
  });

  test.each<[string, Record<string, number>, string[]]>([
    [
      'what is enough alone, then what does most',
      { 'margin-left: 90px': 300, 'padding: 90px': 100, 'width: 500px': 70 },
      ['margin-left', 'padding', 'width'],
    ],
    [
      'of what does nearly as much the plainer',
      { 'padding: 90px': 200, 'width: 500px': 190, 'margin-left: 90px': 179 },
      ['width', 'padding', 'margin-left'],
    ],
    [
      'none that does less than a fifth of the whole',
      { 'padding: 90px': 60, 'width: 500px': 59, 'margin-left: 90px': 61 },
      ['margin-left', 'padding'],
    ],
  ])('%s', (_name, effects, properties) => {
    const code = `<p style="${Object.keys(effects).join('; ')}">`;
    const causes = listCausesOf(readMarkup(code), makeCause(code, effects));
    expect(causes.map(({ property }) => property)).toEqual(properties);
  });

  test('what does it only together is not to blame by itself, and comes last', () => {
    const code = '<iframe width="600" style="min-width: 600px">';
    const cause = makeCause(code, {}, ['width="600"', 'min-width: 600px']);
    expect(blame(code, cause)).toMatchObject({ at: code, why: 'content' });
    expect(listCausesOf(readMarkup(code), cause)).toHaveLength(2);
  });

  test('where nothing cures, what is to be decided is said', () => {
    const said = (code: string, piece: string) =>
      blame(code, makeCause(code, { [piece]: 300 })).cure;
    expect(said('<p style="left: 40px">', 'left: 40px')).toBe(
      'Take `left: 40px` out, or make it fit the room there is.',
    );
    expect(said('<p style="width: 640px">', 'width: 640px')).toBe(
      'Make `width: 640px` smaller, or take it out.',
    );
    const untried = { ...SAMPLE_WIDTH_BLAME, tag: 'iframe', attribute: 'width="560"' };
    expect(cureWidth(untried)).toContain('`width: 100%; max-width: 560px`');
  });
});

describe('what may be to blame', () => {
  const list = (code: string, at = -1) => {
    const markup = readMarkup(code);
    return listSuspects(markup, [markup.elements.at(at)!]).map(({ property }) => property);
  };

  test('on its tag, around it, inside, beside it, and in the sheets', () => {
    expect(
      list(
        '<div style="gap: 1px"><p style="width: 9px"><b style="left: 1px"></b></p><i style="margin: 1px"></i></div>',
        1,
      ),
    ).toEqual(['width', 'gap', 'left', 'margin']);
    expect(list('<style>p { width: 9px; color: red }</style><p width="9" class="a">')).toEqual([
      'width',
      'width',
    ]);
  });

  test('of very many rules those that are for it', () => {
    const rules = Array.from({ length: 300 }, (_, i) => `.c${i} { width: ${i}px }`).join(' ');
    const markup = readMarkup(`<style>${rules} .b::after { gap: 1px }</style><p class="b c299">`);
    const found = listSuspects(markup, [markup.elements.at(-1)!]);
    expect(found.slice(0, 2).map(({ rule }) => rule?.selector)).toEqual(['.c299', '.b::after']);
    expect(found).toHaveLength(160);
  });

  test('nothing that changes no box', () => {
    expect(
      list(
        '<p style="color: red; background: #eee; border-radius: 3px; box-shadow: 0 0 1px; transition: all 1s">',
      ),
    ).toEqual([]);
  });
});

describe('what a change of the source does to the page', () => {
  const CODE = '<style>\r\n.a { width: 9px }</style><p style="left: 1px" width="9">';
  const markup = readMarkup(CODE);
  const ids = new Map(markup.elements.map(({ offset }, i) => [offset, i + 1]));
  const suspects = listSuspects(markup, [markup.elements[1]!]);

  test('taken out, and made small', () => {
    expect(suspects.map((one) => takeOut(markup, ids, one))).toEqual([
      { do: 'style', id: 2, property: 'left', value: null },
      { do: 'attribute', id: 2, name: 'width', value: null },
      // The parser makes one character of the line's end.
      { do: 'text', id: 1, start: 6, end: 16, text: '' },
    ]);
    expect(suspects.map((one) => makeSmall(markup, ids, one))).toEqual([
      null,
      { do: 'attribute', id: 2, name: 'width', value: '1' },
      { do: 'text', id: 1, start: 6, end: 16, text: 'width: 1px' },
    ]);
  });

  test('what is on no page cannot be changed', () => {
    expect(suspects.map((one) => takeOut(markup, new Map(), one))).toEqual([null, null, null]);
    expect(toChanges(markup, ids, [{ do: 'set-style', element: 3, declarations: {} }])).toBeNull();
    expect(toChanges(markup, ids, askFor({ at: 'element', offset: 0 }, 'alt', '')!)).toBeNull();
  });

  test('two sources are told apart by attributes and sheets only', () => {
    const change = (code: string) => diffMarkup(markup, readMarkup(code), ids);
    expect(change(CODE)).toEqual([]);
    expect(change(CODE.replace('left: 1px', 'left: 0'))).toEqual([
      { do: 'attribute', id: 2, name: 'style', value: 'left: 0' },
    ]);
    expect(change(CODE.replace(' width="9"', ''))).toEqual([
      { do: 'attribute', id: 2, name: 'width', value: null },
    ]);
    expect(change(CODE.replace('width: 9px', 'width: 1px'))).toEqual([
      { do: 'text', id: 1, start: 0, end: 18, text: '\n.a { width: 1px }' },
    ]);
    expect(change(`${CODE}<b>`)).toBeNull();
    expect(change(CODE.replace('<p', '<q'))).toBeNull();
  });
});

describe('what is tried, in its order', () => {
  function list(code: string, piece: string, display = 'block', width = 660) {
    const markup = readMarkup(code);
    const causes = listCausesOf(markup, makeCause(code, { [piece]: 300 }));
    const near = [{ element: markup.elements.at(-1)!, display, width }];
    return listRemedies(markup, causes, near).map((intents) => {
      const edits = composeMend(markup, intents);
      return edits && applyEdits(code, edits);
    });
  }

  test.each<[string, string, string[]]>([
    [
      '<p style="width: 640px">',
      'width: 640px',
      [
        '<p style="width: 100%; max-width: 640px">',
        '<p style="width: 100%; max-width: 640px; box-sizing: border-box">',
        '<p style="width: 100%; max-width: 660px; box-sizing: border-box">',
      ],
    ],
    [
      '<p style="min-width: 640px">',
      'min-width: 640px',
      ['<p style="min-width: min(640px, 100%)">', '<p style="min-width: 0">'],
    ],
    [
      '<ul style="display: flex">',
      'display: flex',
      ['<ul style="display: flex; flex-wrap: wrap">'],
    ],
    ['<p style="white-space: nowrap">', 'white-space: nowrap', ['<p style="white-space: normal">']],
    ['<p style="margin: 0 -30px">', 'margin: 0 -30px', ['<p style="margin: 0 0">']],
    [
      '<p style="width: 100vw; position: relative; left: 50%; margin-left: -50vw">',
      'left: 50%',
      ['<p style="width: 100%; position: relative; left: auto; margin-left: 0">'],
    ],
    [
      '<style>p { width: 100vw; margin-left: calc(50% - 50vw) }</style><p>',
      'width: 100vw',
      ['<style>p { width: 100%; margin-left: 0 }</style><p>'],
    ],
    [
      '<p style="width: 100vw; margin: 8px calc(50% - 50vw)">',
      'width: 100vw',
      ['<p style="width: 100%; margin: 8px 0">'],
    ],
    [
      '<p style="width: 100vw; left: 0">',
      'width: 100vw',
      ['<p style="width: 100%; left: 0; max-width: 100vw">'],
    ],
    ['<p style="gap: 90px">', 'gap: 90px', ['<p style="gap: min(90px, 80%)">']],
    [
      '<p style="grid-template-columns: 300px 1fr">',
      'grid-template-columns: 300px 1fr',
      ['<p style="grid-template-columns: minmax(0, 300px) minmax(0, 1fr)">'],
    ],
    [
      '<p style="grid-template-columns: repeat(auto-fill, minmax(400px, 1fr))">',
      'grid-template-columns: repeat(auto-fill, minmax(400px, 1fr))',
      ['<p style="grid-template-columns: repeat(auto-fill, minmax(min(400px, 100%), 1fr))">'],
    ],
    [
      '<img style="width: 900px; height: 300px">',
      'width: 900px',
      ['<img style="width: 100%; height: auto; max-width: 900px; aspect-ratio: 900 / 300">'],
    ],
    [
      '<iframe src="/form" width="640" height="900">',
      'width="640"',
      ['<iframe src="/form" width="640" height="900" style="width: 100%; max-width: 640px">'],
    ],
    [
      '<iframe src="/player/x" width="640" height="360">',
      'width="640"',
      [
        '<iframe src="/player/x" width="640" height="360" style="width: 100%; max-width: 640px; height: auto; aspect-ratio: 640 / 360">',
      ],
    ],
    [
      '<style>p { width: 640px !important }</style><p>',
      'width: 640px !important',
      ['<style>p { width: 100% !important; max-width: 640px !important }</style><p>'],
    ],
  ])('%s', (code, piece, first) => {
    expect(list(code, piece).slice(0, first.length)).toEqual(first);
  });

  test('a scroller of its own for what keeps its lines, and not for text', () => {
    expect(list('<pre>', '')[0]).toBe('<pre style="overflow-x: auto">');
    expect(list('<p>', '').join()).not.toContain('overflow-x');
    expect(list('<table>', '', 'table').join()).toContain('overflow-x: auto');
  });
});

describe('a cure is offered where it cured everywhere', () => {
  const CODE = '<p style="width: 640px">';
  const markup = readMarkup(CODE);
  const cause = makeCause(CODE, { 'width: 640px': 300 });
  const intents = [
    { do: 'set-style' as const, element: 0, declarations: { width: '100%', 'max-width': '640px' } },
  ];
  const tried = (left: number[], harm: 'moved' | 'text' | null = null) => ({
    targets: left.length > 0 ? [cause] : [],
    cures: [{ intents, left, harm }],
  });

  function settle(seen: Facts['causes'][], others: Facts['causes'][] = []) {
    const blamed = { ...SAMPLE_WIDTH_BLAME, where: { offset: 10, endOffset: 22 } };
    const { where, culprit } = blamed;
    const fact = { where, culprit, data: { blame: blamed }, seen: [] };
    const sighted = seen.map((causes) => ({ fact, causes, cause: causes.targets[0] ?? null }));
    return settleCures(markup, sighted, [...seen, ...others])[0]!.data.blame;
  }

  test('in each render it was seen in', () => {
    expect(settle([tried([0]), tried([-9])])).toMatchObject({
      cure: intents,
      change: 'Write `width: 100%; max-width: 640px` instead of `width: 640px`.',
    });
    expect(settle([tried([0]), tried([40])]).cure).toBeNull();
    expect(settle([tried([0]), { targets: [cause], cures: [] }]).cure).toBeNull();
    expect(settle([{ targets: [], cures: [] }]).cure).toBeNull();
  });

  test('and did no harm in any', () => {
    expect(settle([tried([0], 'text')]).cure).toBeNull();
    expect(settle([tried([0])], [tried([], 'moved')]).cure).toBeNull();
    expect(settle([tried([0])], [tried([])]).cure).toEqual(intents);
  });

  test('for the page and for its slot', () => {
    const slot = { ...cause, edge: 304 };
    const both = { targets: [cause, slot], cures: [{ intents, left: [0, 16], harm: null }] };
    expect(settle([both]).cure).toBeNull();
  });
});

test('a cure in words', () => {
  const code = '<p style="display: flex" hidden><b>Sow</b></p>';
  const markup = readMarkup(code);
  const say = (...intents: Intent[]) => describeChange(markup, intents);
  const set = (element: number, declarations: Record<string, string>): Intent => ({
    do: 'set-style',
    element,
    declarations,
  });
  expect(say(set(0, { display: 'flex', 'flex-wrap': 'wrap' }))).toBe(
    'Put `flex-wrap: wrap` beside `display: flex`.',
  );
  expect(
    say(set(32, { 'max-width': '100%' }), { do: 'remove-attribute', element: 0, name: 'hidden' }),
  ).toBe('Set `max-width: 100%` on the <b> and take `hidden` out of the <p>.');
});

test('what is set on one element is set at once', () => {
  const set = (element: number, declarations: Record<string, string>): Intent => ({
    do: 'set-style',
    element,
    declarations,
  });
  expect(
    joinIntents([set(0, { left: '0' }), set(9, { top: '0' }), set(0, { right: '0' })]),
  ).toEqual([set(0, { left: '0', right: '0' }), set(9, { top: '0' })]);
});
