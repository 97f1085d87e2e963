import { describe, expect, test } from '@jest/globals';
import type { FactKind, FileType, RequestFact } from '../../src/core/evidence.js';
import { getDefaultHouse } from '../../src/core/house/read.js';
import { planRenders } from '../../src/core/plan.js';
import type { RawPage } from '../../src/render/in-page/page.js';
import { findGaps, type Sight } from '../../src/render/gaps.js';
import { makeLost } from '../../src/render/bounds/lost.js';
import type { Reading } from '../../src/render/collect/read.js';
import { RequestLog } from '../../src/render/page/request-log.js';

const house = getDefaultHouse();
const RAW = { total: 0, elements: [], slots: [{}] } as unknown as RawPage;

function look(
  given: Partial<Sight> & {
    raw?: Partial<RawPage>;
    unplaced?: boolean;
    asked?: RequestFact[];
    moving?: string[];
  } = {},
) {
  const { raw = {}, asked = [], moving = [], unplaced = false, ...rest } = given;
  const facts = makeLost(planRenders('x', house, house)[0]!, 0, '');
  facts.traffic = asked;
  facts.page.stillMoving = moving;
  const reading = { raw: { ...RAW, ...raw }, objects: { unplaced } } as Reading;
  const seen = {
    facts,
    reading,
    hung: null,
    requests: new RequestLog(),
    of: 0,
    left: false,
    cut: null,
  };
  return findGaps({ ...seen, ...rest });
}

const request = (given: Partial<RequestFact>): RequestFact => ({
  address: 'https://tally.example/a',
  first: 'https://tally.example/a',
  host: 'tally.example',
  type: 'script',
  status: 200,
  wire: 0,
  unpacked: 0,
  failed: null,
  contentType: null,
  refused: null,
  from: null,
  by: null,
  forbidsFrames: null,
  container: null,
  pictured: false,
  moving: false,
  acted: false,
  sharedWith: null,
  fresh: null,
  waited: null,
  inFrame: false,
  ...given,
});

const OFFLINE = { kind: 'offline', words: 'the run is offline' } as const;
const kindsOf = (gaps: ReturnType<typeof look>) =>
  [...new Set(gaps.map(({ kind }) => kind))].sort();
const LAYOUT: FactKind[] = [
  ...(['cuts', 'elements', 'host', 'layers', 'page', 'paint'] as const),
  ...(['shifts', 'slot'] as const),
];
const OBJECTS = [
  ...['controls', 'cuts', 'drawings', 'elements', 'frames'],
  ...['layers', 'media', 'motions', 'paint', 'pictures', 'texts'],
];
const ALL = [
  ...new Set([
    ...LAYOUT,
    ...OBJECTS,
    'asks',
    'code',
    'flashing',
    'handling',
    'policy',
    'reaching',
    'scripts',
    'stored',
    'traffic',
    'times',
    'unrest',
    'visit',
  ]),
].sort();

describe('what is withheld could have shown', () => {
  test.each<[string, Partial<RequestFact>, string[]]>([
    ['anything, as a script', {}, ALL],
    ['anything, as data', { type: 'data' }, ALL],
    [
      'all that can be seen, as a style sheet',
      { type: 'style' },
      ALL.filter((kind) => !['scripts', 'stored', 'code', 'times', 'unrest'].includes(kind)),
    ],
    [
      'how large it is, as a picture',
      { type: 'picture' },
      [...LAYOUT, 'flashing', 'motions', 'pictures'].sort(),
    ],
    ['how wide text is, as a font', { type: 'font' }, LAYOUT],
    ['what plays, as a film', { type: 'film' }, [...LAYOUT, 'flashing', 'media'].sort()],
    [
      'what is in it, as a frame',
      { type: 'document' },
      ['flashing', 'frames', 'scripts', 'stored', 'traffic'],
    ],
    [
      'no more than its frame, inside one',
      { inFrame: true },
      ['flashing', 'frames', 'scripts', 'stored', 'traffic'],
    ],
    ['nothing, as a ping', { type: 'ping' }, []],
    ['nothing, as a mere connection', { type: 'other', failed: 'refused' }, []],
  ])('%s', (_name, given, kinds) => {
    const gaps = look({ asked: [request({ status: null, refused: OFFLINE, ...given })] });
    expect(kindsOf(gaps)).toEqual(kinds);
    expect(gaps.every(({ why }) => why === 'the run is offline')).toBe(true);
  });

  test.each<[string, Partial<RequestFact>, boolean]>([
    ['401', { status: 401 }, true],
    ['403', { status: 403 }, true],
    ['429', { status: 429 }, true],
    ['404', { status: 404 }, false],
    ['503', { status: 503 }, false],
    ['not recorded', { refused: { kind: 'not-recorded', words: 'x' } }, true],
    ['a private address', { refused: { kind: 'private-address', words: 'x' } }, true],
    ['the proxy', { refused: { kind: 'proxy', words: 'x' } }, true],
    ['not looked up in time', { refused: { kind: 'no-lookup', words: 'x' } }, true],
    ['a name that is not', { refused: { kind: 'unknown-name', words: 'x' } }, false],
    ['a host that is down', { refused: { kind: 'unreachable', words: 'x' } }, false],
  ])('%s: %j', (_name, given, gap) => {
    expect(look({ asked: [request(given)] }).length > 0).toBe(gap);
  });

  test('without its styles nothing measured counts; without a picture what is there does', () => {
    const keptOf = (type: FileType) =>
      look({ asked: [request({ type, refused: OFFLINE })] }).find(({ kind }) => kind === 'page')
        ?.kept;
    expect([keptOf('style'), keptOf('picture')]).toEqual([null, 1]);
    // Both at once, for the same reason: the worse one is told.
    const both = (['picture', 'style', 'script'] as const).map((type) =>
      request({ type, refused: OFFLINE }),
    );
    const pages = look({ asked: both }).filter(({ kind }) => kind === 'page');
    expect(pages.map(({ kept }) => kept)).toEqual([null]);
  });
});

describe('what was not at rest', () => {
  test.each<[string, string[]]>([
    ['the load', ALL],
    ['the network', ALL],
    ['timers', ALL],
    ['media', ['flashing', 'media']],
    ['films', [...LAYOUT, 'flashing', 'media'].sort()],
    ['fonts', LAYOUT],
    ['pictures', [...LAYOUT, 'flashing', 'motions', 'pictures'].sort()],
  ])('%s', (motion, kinds) => {
    expect(kindsOf(look({ moving: [motion, motion] }))).toEqual(kinds);
    expect(look({ moving: [motion, motion] })).toHaveLength(kinds.length);
  });
});

describe('what was not read', () => {
  // What the source alone tells is lost with the page, and with nothing less.
  const whole = [...ALL, 'styles'].sort();
  const told = ['asks', 'scripts', 'traffic'];
  const read = whole.filter((kind) => !told.includes(kind));

  test('beyond the cap frames, media and pictures are missing too', () => {
    const gaps = look({ raw: { total: 5200, elements: [{}] as RawPage['elements'] } });
    expect(kindsOf(gaps)).toEqual([...OBJECTS, 'host'].sort());
    expect(gaps.find(({ kind }) => kind === 'elements')).toMatchObject({ seen: 5200, kept: 0 });
    expect(kindsOf(look({ unplaced: true }))).toEqual(OBJECTS);
  });

  test.each<[string, Partial<Sight> & { raw?: Partial<RawPage> }, string[], string]>([
    ['a page that could not be read', { reading: null }, read, 'the page could not be read'],
    ['a slot that is gone', { raw: { slots: [null] } }, read, 'the slot is no longer on the page'],
    ['a page that was left', { reading: null, left: true }, whole, 'the page was left'],
  ])('%s', (_name, given, kinds, why) => {
    const gaps = look(given);
    expect(kindsOf(gaps)).toEqual(kinds);
    expect(gaps.every((gap) => gap.why === why)).toBe(true);
    expect(gaps.find(({ kind }) => kind === 'page')?.kept).toBeNull();
  });

  test('what is stored, where the browser did not tell', () => {
    const [gap, ...others] = look({ reading: { raw: RAW, objects: {}, stored: null } as Reading });
    expect([gap?.kind, gap?.kept, others]).toEqual(['stored', null, []]);
  });

  test('a page that hangs was not seen to its end, and is not called late as well', () => {
    const hung = { from: null, address: null, line: null, functionName: null, seconds: 5 };
    const gaps = look({ hung, moving: ['the page'] });
    expect(kindsOf(gaps)).toEqual(ALL);
    expect(new Set(gaps.map(({ why }) => why))).toEqual(new Set(['its code had to be stopped']));
  });

  test('nothing, where all was seen', () => {
    expect(look()).toEqual([]);
  });
});
