import { describe, expect, test } from '@jest/globals';
import { called, parseOptions, TEXT_OR_JSON, toRequest } from '../../dist/src/cli/options.js';
import { chooseChecks, chooseSlots, chooseViewports } from '../../dist/src/run/choose.js';
import { getDefaultHouse } from '../../dist/src/core/house/read.js';

const house = getDefaultHouse();

describe('the options of audit', () => {
  test('have defaults, and are frozen', () => {
    const options = parseOptions({ inputs: ['a.html'] });
    expect(options).toMatchObject({
      inputs: ['a.html'],
      format: 'text',
      save: [],
      markupOnly: false,
      offline: false,
      quiet: false,
      color: true,
    });
    expect(Object.isFrozen(options)).toBe(true);
  });

  test('a recording is saved by its ending too', () => {
    const { record, save } = parseOptions({ save: ['a.har', 'b.json'] });
    expect([record, save]).toEqual(['a.har', ['a.har', 'b.json']]);
    expect(toRequest(parseOptions({ save: ['a.har'] }))).toMatchObject({ record: 'a.har' });
  });

  test('a budget is a number for each level', () => {
    expect(parseOptions({ budget: ['blocker:0', 'advice:12'] }).budget).toEqual({
      ...{ blocker: 0, advice: 12 },
    });
  });

  test('what tells of no run is text or JSON', () => {
    const complaint = '`--format` must be one of text, json, found "sarif".';
    expect(() => parseOptions({ format: 'sarif' }, TEXT_OR_JSON)).toThrow(complaint);
  });

  test('a time is given with its unit', () => {
    expect(parseOptions({ timeLimit: '1.5s' }).timeLimit).toBe(1500);
    expect(parseOptions({ timeLimit: '2000ms' }).timeLimit).toBe(2000);
  });

  test.each([
    [
      { format: 'yaml' },
      '`--format` must be one of text, json, jsonl, sarif, junit, markdown, csv, reply, found "yaml".',
    ],
    [
      { budget: ['concern:5', 'much'] },
      '`--budget` must be levels with a number each, such as blocker:0,concern:5, found ["concern:5","much"].',
    ],
    [{ writeWaivers: 'a.txt' }, '`--write-waivers` must end on .yaml or .yml, found "a.txt".'],
    [
      { save: ['a.har'], record: 'b.har' },
      'There is one recording of a run: found b.har and a.har.',
    ],
    [{ jobs: '0' }, '`--jobs` must be a whole number from 1 to 32, found "0".'],
    [{ holdOn: 'never' }, '`--hold-on` must be one of blocker, concern, advice, found "never".'],
    [
      { timeLimit: '90' },
      '`--time-limit` must be a time from 1s to 3600s, such as 90s, found "90".',
    ],
    [{ timeLimit: '10ms' }, '`--time-limit` must be a time from 1s to 3600s'],
    [
      { save: ['a.json', 'b.txt'] },
      '`--save` must end on .json, .jsonl, .sarif, .xml, .md, .csv, .html, .png or .har, found "b.txt".',
    ],
  ])('%j is refused in one sentence', (given, complaint) => {
    expect(() => parseOptions(given)).toThrow(complaint);
  });
});

describe('viewports', () => {
  const choose = (options: Parameters<typeof chooseViewports>[1]) =>
    chooseViewports(house, options, called).map(({ name, width, density, touch }) => [
      name,
      width,
      density,
      touch,
    ]);

  test('all of the house where nothing is asked for', () => {
    expect(choose({})).toHaveLength(4);
  });

  test('a width of the house is that viewport; others are phones below 600 px, else desktops', () => {
    expect(choose({ widths: [390, '599', '600'] })).toEqual([
      ['phone-390', 390, 2, true],
      ['599', 599, 2, true],
      ['600', 600, 1, false],
    ]);
  });

  test('a density makes it another viewport; names and widths add up, none twice', () => {
    expect(
      choose({ viewports: ['phone-390', 'desktop-1280'], widths: ['390', '390@3', '1024@1.5'] }),
    ).toEqual([
      ['phone-390', 390, 2, true],
      ['desktop-1280', 1280, 1, false],
      ['390@3', 390, 3, true],
      ['1024@1.5', 1024, 1.5, false],
    ]);
  });

  test.each(['', '99', '10001', '390@', '390@9', '390px', '3e2', '-390'])(
    'no width: “%s”',
    (text) => {
      expect(() => choose({ widths: [text] })).toThrow('`--width` must be px from 100 to 10000');
    },
  );
});

describe('slots and checks', () => {
  test('a slot the house does not have is told with the nearest', () => {
    expect(chooseSlots(house, undefined, called)).toBe(house.slots);
    expect(chooseSlots(house, ['column'], called)).toHaveLength(1);
    expect(() => chooseSlots(house, ['colum'], called)).toThrow('Did you mean "column"?');
  });

  test('what takes a drill where one is asked for, or it itself', () => {
    const ids = (wish: Parameters<typeof chooseChecks>[0]) =>
      chooseChecks(wish, called).map(({ id }) => id);
    expect(ids({})).not.toContain('outage-harms-page');
    expect(ids({ outage: true })).toContain('outage-harms-page');
    expect(ids({ outage: true, only: ['page-hangs'] })).toEqual(['page-hangs']);
    expect(ids({ only: ['outage-harms-page'] })).toEqual(['outage-harms-page']);
  });

  test('only and skip together', () => {
    const all = chooseChecks({}, called);
    const some = chooseChecks(
      { only: ['page-hangs', 'slot-overflow'], skip: ['page-hangs'] },
      called,
    );
    expect(all.length).toBeGreaterThan(20);
    expect(some.map(({ id }) => id)).toEqual(['slot-overflow']);
    expect(() => chooseChecks({ skip: ['page-hang'] }, called)).toThrow(
      'Did you mean "page-hangs"?',
    );
  });
});
