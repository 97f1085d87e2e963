import { afterAll, describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { PassThrough } from 'node:stream';
import { writeDraft } from '../../src/core/house/draft.js';
import { readHouse } from '../../src/core/house/read.js';
import { init, type InitOptions } from '../../src/cli/init.js';
import { Workshop } from '../support/program.js';

const shop = new Workshop();
afterAll(() => shop.close());

const PAGE = '<main data-mivket-slot="article"></main><aside data-mivket-slot="sidebar"></aside>';

async function begin(file: string, options: InitOptions, typed: string | null = null) {
  const stdin = Object.assign(new PassThrough(), { isTTY: typed !== null });
  if (typed !== null) stdin.end(typed);
  let out = '';
  const stdout = {
    write(text: string, done?: () => void) {
      out += text;
      done?.();
    },
  };
  const world = { stdin, stdout, stderr: stdout, env: {}, cwd: shop.folder };
  await init(file, options, world);
  const text = readFileSync(join(shop.folder, file), 'utf8');
  return { text, out, house: readHouse(text, file) };
}

describe('a house file is begun', () => {
  test('without an answer, as a house of defaults', async () => {
    const { text, house } = await begin('plain.yaml', {});
    expect(house.slots.map(({ name }) => name)).toEqual(['column']);
    expect(text.split('\n').every((line) => line.length < 110)).toBe(true);
  });

  test('with its schema, which editors complete and check it by', async () => {
    const { text } = await begin('sub/known.yaml', {});
    const [, path] = /^# yaml-language-server: \$schema=(\S+)\n/.exec(text)!;
    // As seen from the file's own folder.
    expect(path).toMatch(/^\.\.\/\.\.\/.*schema\/house\.schema\.json$/);
  });

  test('from options', async () => {
    const { house } = await begin('some.yaml', {
      slot: ['article:680', 'banner:full', 'wide'],
      width: ['320', '1440'],
      origin: 'https://seeds.example',
      language: 'de',
      holdOn: 'concern',
    });
    expect(house).toMatchObject({
      origin: 'https://seeds.example',
      language: 'de',
      holdOn: 'concern',
    });
    expect(house.viewports.map(({ width }) => width)).toEqual([320, 1440]);
    expect(house.slots.map(({ name, ranges }) => [name, ranges[0]!.width])).toEqual([
      ['article', 680],
      ['banner', 'full'],
      ['wide', 'full'],
    ]);
  });

  test('with a page, whose slots are its own', async () => {
    shop.write('site/host.html', PAGE);
    const { house } = await begin('house/own.yaml', { page: 'site/host.html' });
    expect(house.page).toBe('../site/host.html');
    expect(house.slots.map(({ name }) => name)).toEqual(['article', 'sidebar']);
    await expect(
      begin('wide.yaml', { page: 'site/host.html', slot: ['article:680'] }),
    ).rejects.toThrow(/as wide as that page makes it\. Write --slot article\.$/);
    const one = await begin('one.yaml', { page: 'site/host.html', slot: ['sidebar'] });
    expect(one.house.slots.map(({ name }) => name)).toEqual(['sidebar']);
  });

  test('by questions at a terminal; an input that ends leaves the rest', async () => {
    const { house, out } = await begin('asked.yaml', {}, '\narticle:500, x:full\n320 700\n');
    expect(house.slots.map(({ name }) => name)).toEqual(['article', 'x']);
    expect(house.viewports.map(({ width }) => width)).toEqual([320, 700]);
    expect(out).toMatch(/^An empty answer leaves the default\.\nThe page /);
  });

  test.each<[InitOptions, RegExp]>([
    [{ page: 'none.html' }, /--page none\.html cannot be read/],
    [{ page: 'bare.html' }, /has no slot\. Mark each/],
    [{ page: 'site/host.html', slot: ['desk'] }, /"desk".* It marks article and sidebar\./],
    [{ slot: ['a b'] }, /--slot takes a name/],
    [{ width: ['wide'] }, /--width takes widths in px/],
    [{ origin: 'seeds' }, /origin/],
    [{ holdOn: 'always' }, /holdOn/],
  ])('not from %j', async (options, why) => {
    shop.write('site/host.html', PAGE);
    shop.write('bare.html', '<p>Sow</p>');
    await expect(begin('wrong.yaml', options)).rejects.toThrow(why);
  });

  test('never over one that is there', async () => {
    shop.write('there.yaml', 'holdOn: advice\n');
    await expect(begin('there.yaml', {})).rejects.toThrow(/there already\. Give --force/);
    const { house } = await begin('there.yaml', { force: true, holdOn: 'concern' });
    expect(house.holdOn).toBe('concern');
  });

  test('what YAML would read otherwise is quoted', () => {
    const text = writeDraft({ page: 'a: b #c.html', slots: [{ name: 'no', width: null }] });
    const house = readHouse(text, 'x.yaml');
    expect([house.page, house.slots[0]!.name]).toEqual(['a: b #c.html', 'no']);
  });
});
