import { afterAll, describe, expect, test } from '@jest/globals';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { loadHouse } from '../../dist/src/run/house-file.js';
import { readInputs } from '../../dist/src/cli/intake.js';

const folder = mkdtempSync(join(tmpdir(), 'mivket-intake-'));
afterAll(() => rmSync(folder, { recursive: true }));

function put(name: string, content: string): void {
  mkdirSync(join(folder, name, '..'), { recursive: true });
  writeFileSync(join(folder, name), content);
}

const read = (inputs: string[], code: string[] = [], input = '') =>
  readInputs(inputs, code, folder, Readable.from(input ? [Buffer.from(input)] : []));

describe('what is taken in', () => {
  put('in/b.html', '<p>b</p>');
  put('in/a.txt', '\ufeff<p>a</p>');
  put('in/deep/c.svg', '<svg/>');
  put('in/notes.md', 'no snippet');
  put('in/.git/d.html', '<p>d</p>');

  test('a folder gives its snippets in order of their names, hidden folders and other files left out', async () => {
    const { snippets } = await read(['in']);
    expect(snippets.map(({ name, path }) => [name, path])).toEqual([
      ['a.txt', 'in/a.txt'],
      ['b.html', 'in/b.html'],
      ['c.svg', 'in/deep/c.svg'],
    ]);
    // A byte order mark is no part of the paste.
    expect(snippets[0]!.text).toBe('<p>a</p>');
  });

  test('a pattern, a file, standard input and code, in the order given', async () => {
    const { snippets } = await read(
      ['in/**/*.svg', '-', 'in/b.html'],
      ['<i>x</i>', '<b>y</b>'],
      '<p>s</p>',
    );
    expect(snippets.map(({ name, path, text }) => [name, path, text])).toEqual([
      ['code', null, '<i>x</i>'],
      ['code-2', null, '<b>y</b>'],
      ['c.svg', 'in/deep/c.svg', '<svg/>'],
      ['stdin', null, '<p>s</p>'],
      ['b.html', 'in/b.html', '<p>b</p>'],
    ]);
  });

  test('problems are kept apart from what is sound', async () => {
    const { snippets, problems } = await read(['in/b.html', 'gone.html', 'https://desk.example/x']);
    expect(snippets).toHaveLength(1);
    expect(problems.map(({ message }) => message)).toEqual([
      'gone.html does not exist.',
      'https://desk.example/x is an address: give the code itself, in a file or with --code.',
    ]);
  });

  test.each([
    [[], [], 'give an HTML, text or SVG file'],
    [['-'], [], 'standard input is empty'],
    [[], ['  '], '--code is empty'],
    [['in/notes.md/x'], [], 'in/notes.md/x does not exist'],
  ])('nothing at all is an error: %j %j', async (inputs, code, complaint) => {
    await expect(read(inputs, code)).rejects.toThrow(complaint);
  });
});

describe('a house with its files', () => {
  put('house/host.html', '<main data-mivket-slot="article"></main><p data-mivket-slot="aside">');
  put('house/mivket.yaml', 'page: host.html\nslots: { aside: { headingLevel: 3 } }\nroot: .\n');

  test('is found from a folder upward; the slots are those of its page', async () => {
    mkdirSync(join(folder, 'house/deep/er'), { recursive: true });
    const { house, ownPage, root } = await loadHouse(undefined, join(folder, 'house/deep/er'));
    expect(house.file).toBe('../../mivket.yaml');
    expect(house.slots.map(({ name, headingLevel }) => [name, headingLevel])).toEqual([
      ['article', 2],
      ['aside', 3],
    ]);
    expect([ownPage?.includes('<main'), root]).toEqual([true, join(folder, 'house')]);
  });

  test('without a file is the default', async () => {
    const { house, ownPage } = await loadHouse(undefined, folder);
    expect([house.file, ownPage]).toEqual([null, null]);
  });

  test.each([
    ['page: gone.html', 'page gone.html does not exist'],
    ['page: bare.html', 'marks no slot. Put data-mivket-slot="NAME"'],
    [
      'page: host.html\nslots: { asid: {} }',
      'the slot "asid" is not marked on the page host.html. Did you mean "aside"?',
    ],
    ['root: gone', '`root` names gone, which is no folder'],
  ])('%j is told', async (text, complaint) => {
    put('house/bare.html', '<p>no slot</p>');
    put('house/bad.yaml', text);
    await expect(loadHouse('house/bad.yaml', folder)).rejects.toThrow(complaint);
  });
});
