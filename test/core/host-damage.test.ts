import { describe, expect, test } from '@jest/globals';
import type { HostPart, HostPartFact } from '../../src/core/evidence.js';
import { getDefaultHouse } from '../../src/core/house/read.js';
import {
  getHarmedRegion,
  isDisplaced,
  listHarmed,
  type Compared,
} from '../../src/core/measure/host-damage.js';

const [, phone] = getDefaultHouse().viewports;
const viewport = phone!;

function makePart(
  given: Partial<HostPart> & { x?: number; width?: number; y?: number } = {},
): HostPart {
  const { x = 16, y = 100, width = 300, ...rest } = given;
  const look = { style: 'a', clickable: true, says: 'b', leads: 'c' };
  return { box: { x, y, width, height: 40 }, shown: true, ...look, ...rest };
}

function makeFact(tag: string, before: HostPart, now: HostPart | null, offset = 1): HostPartFact {
  return { offset, tag, words: '', fits: [], displaced: false, without: before, with: now };
}

function list(host: HostPartFact[], given: Partial<Compared> = {}) {
  const width = { scrollWidth: viewport.width, clientWidth: viewport.width, scrollable: true };
  const page = { atLoad: width } as Compared['page'];
  return listHarmed({ host, page, viewport, baseline: null, ...given });
}

describe('what is done to a part of the page', () => {
  test.each([
    ['gone', makePart(), null],
    ['hidden', makePart(), makePart({ shown: false })],
    ['unclickable', makePart(), makePart({ clickable: false })],
    ['reworded', makePart(), makePart({ says: '' })],
    ['redirected', makePart(), makePart({ leads: 'd' })],
    ['restyled', makePart(), makePart({ style: 'b' })],
    ['resized', makePart(), makePart({ width: 302 })],
    ['moved', makePart(), makePart({ x: 18 })],
  ] as const)('%s', (harm, before, now) => {
    expect(list([makeFact('p', before, now)]).map((one) => one.harm)).toEqual([harm]);
  });

  test('displaced', () => {
    const part = { ...makeFact('p', makePart(), makePart({ y: 900 })), displaced: true };
    expect(list([part]).map((one) => one.harm)).toEqual(['displaced']);
  });

  test.each([
    ['shifted down', makePart(), makePart({ y: 900 })],
    ['put into what said nothing', makePart({ says: '' }), makePart()],
    ['moved by a hair', makePart(), makePart({ x: 17 })],
    ['hidden before', makePart({ shown: false }), null],
    ['to be clicked only now', makePart({ clickable: false }), makePart()],
  ] as const)('not what is %s', (_what, before, now) => {
    expect(list([makeFact('p', before, now)])).toEqual([]);
  });

  test('to the page as a whole only what hides or restyles it', () => {
    const listWhole = (now: HostPart) => list([makeFact('body', makePart(), now)]);
    expect(listWhole(makePart({ style: 'b' })).map(({ harm }) => harm)).toEqual(['restyled']);
    expect(listWhole(makePart({ says: 'x' }))).toEqual([]);
    expect(listWhole(makePart({ width: 900 }))).toEqual([]);
    expect(list([makeFact('head', makePart(), makePart({ style: 'b' }))])).toEqual([]);
  });

  test('not what a new scroll bar takes', () => {
    const width = { scrollWidth: 900, clientWidth: viewport.width - 15, scrollable: true };
    const page = { atLoad: width } as Compared['page'];
    const narrower = [makeFact('p', makePart(), makePart({ width: 285 }))];
    const baseline = { scrollWidth: viewport.width } as Compared['baseline'];
    expect(list(narrower, { page, baseline })).toEqual([]);
    expect(list(narrower, { page, baseline: null })).toHaveLength(1);
  });

  test('nor what one leaves that is gone', () => {
    const wider = [makeFact('p', makePart({ width: 285 }), makePart())];
    const baseline = { scrollWidth: viewport.width - 15 } as Compared['baseline'];
    expect(list(wider, { baseline })).toEqual([]);
    expect(list([makeFact('p', makePart({ width: 270 }), makePart())], { baseline })).toHaveLength(
      1,
    );
  });

  test('what is harmed with the part around is told with that alone', () => {
    const menu = makeFact('nav', makePart(), makePart({ shown: false }), 1);
    const link = makeFact('a', makePart({ x: 20, width: 40 }), makePart({ shown: false }), 2);
    const moved = makeFact('b', makePart({ x: 20, width: 40 }), makePart({ x: 80, width: 40 }), 3);
    const twin = makeFact('div', makePart(), makePart({ shown: false }), 4);
    const found = list([menu, link, moved, twin]);
    expect(found.map(({ part }) => part.tag)).toEqual(['nav', 'b']);
  });

  test('is shown with and without the snippet in one piece of the page', () => {
    const found = list([makeFact('p', makePart(), makePart({ x: 60, y: 400 }))]);
    expect(getHarmedRegion(found, viewport)).toEqual({
      x: 0,
      y: 84,
      width: viewport.width,
      height: 372,
    });
    const far = list([makeFact('p', makePart({ y: 0 }), makePart({ x: 60, y: 9000 }))]);
    expect(getHarmedRegion(far, viewport)).toMatchObject({ y: 0, height: 1200 });
  });
});

describe('a part is further down than a slot explains', () => {
  const slot = { x: 16, y: 400, width: 358, height: 90 };
  const box = (y: number, x = 16) => ({ x, y, width: 300, height: 40 });

  test.each([
    ['where it is pushed down over it', box(100), box(125), true],
    ['not by as much as a line may take', box(100), box(124), false],
    ['not where it moves up, as what is centred does', box(200), box(100), false],
    ['not below it', box(500), box(900), false],
    ['nor where it reaches into it', box(300), box(362), false],
    ['nor beside it', box(100, 500), box(200, 500), false],
  ])('%s', (_what, without, now, is) => {
    expect(isDisplaced(without, now, slot)).toBe(is);
  });
});
