import { describe, expect, test } from '@jest/globals';
import { composePage, findSlots, getHostPage } from '../../src/core/host/host-page.js';
import { getSlotRange, makeViewport } from '../../src/core/house/house.js';
import { getRenderedPart } from '../../src/core/house/plain.js';
import { changesRenders, houseSchema } from '../../src/core/house/schema.js';
import { getDefaultHouse, readHouse } from '../../src/core/house/read.js';
import { planRenders } from '../../src/core/plan.js';

const complain = (text: string): string => {
  try {
    readHouse(text, 'mivket.yaml');
    return '';
  } catch (error) {
    return (error as Error).message;
  }
};

describe('a house file that is wrong', () => {
  test.each([
    [
      'slotz: {}',
      'mivket.yaml, line 1: `slotz` is not a key of the house file. Did you mean "slots"? Allowed: viewports, ',
    ],
    [
      'viewports:\n  - { name: phone, width: wide }',
      'line 2: `viewports.0.width` must be a number, found "wide"',
    ],
    [
      'limits:\n  scriptBytes: heavy',
      'line 2: `limits.scriptBytes` must be a measure such as 150kB, found "heavy"',
    ],
    [
      'insert: sideways',
      'line 1: `insert` must be one of inline, late, frame, shadow, or a list, found "sideways"',
    ],
    ['language: german!', 'line 1: `language` must be a language tag such as en-GB or de'],
    [
      'viewports: [{ name: p, width: 390, userAgent: "a\\nb" }]',
      '`viewports.0.userAgent` must be one line of plain characters, as browsers send it',
    ],
    ['holdOn: never', '`holdOn` must be one of blocker, concern, advice'],
    [
      'levels:\n  slot-overfow: off',
      'line 2: `levels.slot-overfow` names the unknown finding "slot-overfow". Did you mean "slot-overflow"?',
    ],
    [
      'waivers:\n  - finding: slot-overflow\n    until: soon\n    reason: x',
      'line 3: `waivers.0.until` must be a day such as 2027-03-31',
    ],
    [
      'waivers:\n  - { finding: slot-overflow, until: 2027-01-01 }',
      '`waivers.0.reason` must be a string',
    ],
    ['origin: www.seedlibrary.example', '`origin` must be an origin such as https://'],
    ['reroute: { a.example: 8137 }', '`reroute.a.example` must be a string'],
    [
      'slots: { side: [ { widht: 3 } ] }',
      '`slots.side.0.widht` is not a key of "slots.side.0". Did you mean "width"?',
    ],
    ['slots: {}', '`slots` must have at least one slot'],
    [
      'viewports:\n  - { name: phone, width: 390 }\n  - { name: phone, width: 320 }',
      'line 3: `viewports.1.name` must be another name than those before, found "phone"',
    ],
    ['holdOn: concern\nlevels: {}\nholdOn: advice', 'line 3: `holdOn` stands there twice'],
    ['levels:\n  __proto__: off', 'line 2: `__proto__` is not a key here'],
    [
      'waivers:\n  - { finding: slot-overflow, reason: x, until: 2027-02-31 }',
      '`waivers.0.until` must be a day such as 2027-03-31',
    ],
    ['headers: { x-a: "a\\nb" }', '`headers.x-a` must be one line of plain characters'],
    ['headers: { x-a: “quoted” }', '`headers.x-a` must be one line of plain characters'],
    ['headers: { Content-Length: "5" }', 'must not be a header of the connection itself'],
    [
      'levels: { autoplay-sound: off }',
      'names the unknown finding "autoplay-sound". Did you mean "autoplay-with-sound"?',
    ],
    ['viewports: []', '`viewports` must have at least 1 in it'],
    ['viewports: [320]', '`viewports.0` must be a group of keys such as name and width, found 320'],
    [
      'slots: { side: { width: 20% } }',
      '`slots.side.width` must be full, or a number, found "20%"',
    ],
    ['a: [', 'line 1: is not YAML'],
    ['- a', 'must be a group of keys'],
  ])('%j', (text, complaint) => {
    expect(complain(text)).toContain(complaint);
  });

  test('aliases that would blow up are refused', () => {
    const bomb = [
      'a: &a [x, x]',
      ...Array.from(
        { length: 9 },
        (_, i) => `${'bcdefghij'[i]}: &${'bcdefghij'[i]} [${`*${'abcdefghi'[i]}, `.repeat(9)}]`,
      ),
    ];
    expect(complain(bomb.join('\n'))).toContain('aliases');
  });
});

test('all that is wrong in a house file is told, each with its line', () => {
  const text =
    'slotz: {}\nviewports: [{ name: p, width: wide }]\nlimits: { smallestText: tiny, sise: 3 }\n';
  const lines = complain(text).split('\n');
  expect(lines.map((line) => /line \d+: `[^`]*`/.exec(line)?.[0])).toEqual([
    'line 1: `slotz`',
    'line 2: `viewports.0.width`',
    'line 3: `limits.smallestText`',
    'line 3: `limits.sise`',
  ]);
  const many = Array.from({ length: 25 }, (_, at) => `bed${at}: 1`).join('\n');
  expect(complain(many).split('\n')).toHaveLength(21);
  expect(complain(many)).toMatch(/And 5 more mistakes\.$/);
  const names =
    'levels: { slot-overfow: off, a: off }\nviewports: [{ name: p, width: 390 }, { name: p, width: 768 }]';
  expect(complain(names).split('\n')).toHaveLength(3);
});

describe('a house', () => {
  test('without a file has one column and four widths', () => {
    const house = getDefaultHouse();
    expect(
      house.viewports.map(({ width, height, density, touch, scrollBars }) => [
        width,
        height,
        density,
        touch,
        scrollBars,
      ]),
    ).toEqual([
      [320, 740, 2, true, 'overlay'],
      [390, 740, 2, true, 'overlay'],
      [768, 800, 1, false, 'classic'],
      [1280, 800, 1, false, 'classic'],
    ]);
    expect(house.slots).toMatchObject([{ name: 'column', align: 'start', headingLevel: 2 }]);
    expect(house.limits).toMatchObject({
      scriptBytes: 150_000,
      scriptTime: 200,
      slowdown: 4,
      smallestText: 12,
    });
    expect(planRenders('x', house, house)).toHaveLength(4);
  });

  test('takes an empty file, units, `off` as a word, and slots by range', () => {
    expect(readHouse('', 'mivket.yaml').slots).toHaveLength(1);
    const house = readHouse(
      'limits: { scriptBytes: 1.5 MiB, scriptTime: 1s }\nlevels: { slot-overflow: off }\nslots: { sidebar: [ { to: 899, width: full, inset: 16 }, { from: 900, to: 1100, width: 300 } ] }',
      'mivket.yaml',
    );
    expect(house.limits).toMatchObject({ scriptBytes: 1_572_864, scriptTime: 1000 });
    expect(house.levels).toEqual({ 'slot-overflow': 'off' });
    expect(
      [890, 1000, 1280].map((width) => getSlotRange(house.slots[0]!, width)?.width ?? null),
    ).toEqual(['full', 300, null]);
    // At 1280 the slot does not exist.
    expect(planRenders('x', house, house)).toHaveLength(3);
  });

  test('a touch viewport has overlay bars, whatever its width', () => {
    expect(makeViewport({ name: 'pad', width: 1024, touch: true })).toMatchObject({
      scrollBars: 'overlay',
      height: 800,
    });
  });
});

describe('a host page', () => {
  const page =
    '<main><div data-mivket-slot="article"><p>old</p></div><aside data-mivket-slot=side></aside></main>';

  test('is cut at the slot, what stands in it taken out', () => {
    expect(findSlots(page)).toEqual(['article', 'side']);
    const slot = { ...getDefaultHouse().slots[0]!, name: 'article' };
    expect(getHostPage([slot], page)).toEqual({
      slots: ['article'],
      css: null,
      pieces: [
        '<main><div data-mivket-slot="article">',
        '</div><aside data-mivket-slot=side></aside></main>',
      ],
    });
    expect(getHostPage([{ ...slot, name: 'gone' }], page)).toBeNull();
  });

  test('takes several snippets, each in its slot, in the order of the page', () => {
    const slots = ['side', 'article'].map((name) => ({ ...getDefaultHouse().slots[0]!, name }));
    for (const own of [page, null]) {
      const host = getHostPage(slots, own)!;
      const html = composePage(host, [
        { slot: 'side', text: '<i>S</i>' },
        { slot: 'article', text: '<b>A</b>' },
      ]);
      expect(html).toMatch(/slot="article">(\s*)<b>A<\/b>/);
      expect(html).toMatch(/slot="?side"?>(\s*)<i>S<\/i>/);
    }
  });

  test('the neutral one has the slot of the house', () => {
    const host = getHostPage(getDefaultHouse().slots, null)!;
    expect(findSlots(composePage(host, []))).toEqual(['column']);
    expect(host.pieces[0]).toContain('width: min(680px, 100% - 32px)');
  });
});

test('every key says whether it changes renders', () => {
  const keys = Object.keys(houseSchema.shape);
  expect(keys.filter(changesRenders).sort()).toEqual(
    'filter headers insert language lateScripts origin page reroute root searchWidths slots steps viewports'.split(
      ' ',
    ),
  );
});

test('another language renders otherwise, another limit does not', () => {
  const get = (text: string) => getRenderedPart(readHouse(text, 'mivket.yaml'));
  expect(get('language: de')).not.toEqual(get(''));
  expect(get('limits: { hosts: 1 }')).toEqual(get(''));
});

test('the last day of a waiver may be given as a date', () => {
  const until = new Date('2027-03-31T12:00:00Z');
  const waiver = { finding: 'slot-overflow', reason: 'spring', until };
  expect(houseSchema.parse({ waivers: [waiver] }).waivers).toEqual([
    { ...waiver, until: '2027-03-31' },
  ]);
});
