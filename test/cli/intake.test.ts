import { afterAll, describe, expect, test } from '@jest/globals';
import { mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
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

  test('is read in the encoding that it has: by its mark, as UTF-8, or as it states', async () => {
    const write = (name: string, bytes: Buffer) => writeFileSync(join(folder, name), bytes);
    write('wide.html', Buffer.from('\ufeff<p>Bohnenbüchse</p>', 'utf16le'));
    write('wide-be.html', Buffer.from('\ufeff<p>ü</p>', 'utf16le').swap16());
    write('latin.html', Buffer.from('<meta charset="windows-1252"><p>ü\x80</p>', 'latin1'));
    write('none.html', Buffer.from('<p>ü</p>', 'latin1'));
    const { snippets, problems } = await read([
      'wide.html',
      'wide-be.html',
      'latin.html',
      'none.html',
    ]);
    expect(snippets.map(({ text }) => text)).toEqual([
      '<p>Bohnenbüchse</p>',
      '<p>ü</p>',
      '<meta charset="windows-1252"><p>ü€</p>',
    ]);
    expect(problems.map(({ message }) => message)).toEqual([
      'none.html is not UTF-8; save it as UTF-8 and try again.',
    ]);
  });

  test('links in a folder are followed, each file once, and out of it once; what is left is said', async () => {
    put('links/own/a.html', '<p>a</p>');
    put('elsewhere/b.html', '<p>b</p>');
    put('farther/c.html', '<p>c</p>');
    const link = (to: string, name: string) => symlinkSync(to, join(folder, name));
    link('own/a.html', 'links/again.html');
    link('.', 'links/round');
    link('../elsewhere', 'links/out');
    link('../farther', 'elsewhere/on');
    link('../links/own/a.html', 'elsewhere/back.html');
    link('nowhere.html', 'links/dead.html');
    const { snippets, problems } = await read(['links']);
    expect(snippets.map(({ text }) => text)).toEqual(['<p>a</p>', '<p>b</p>']);
    expect(problems.map(({ message }) => message).sort()).toEqual([
      'links/dead.html is a link that leads nowhere.',
      'links/out/back.html is a link out of a folder that a link led to.',
      'links/out/on is a link out of a folder that a link led to.',
    ]);
  });

  test('what is too large is said with its true size, also from standard input', async () => {
    put('large/just.html', 'x'.repeat(2_000_001));
    put('large/list.jsonl', `{"code":"${'y'.repeat(2_100_000)}"}\n{"code":"<p>b</p>"}\n`);
    const { snippets, problems } = await read(
      ['-', 'large/just.html', 'large/list.jsonl'],
      [],
      'z'.repeat(3_400_000),
    );
    expect(snippets.map(({ text }) => text)).toEqual(['<p>b</p>']);
    expect(problems.map(({ message }) => message)).toEqual([
      'standard input has 3.4 MB; a snippet may have 2 MB at most.',
      'large/just.html has 2,000,001 bytes; a snippet may have 2 MB at most.',
      'large/list.jsonl, line 1, has 2.1 MB; a snippet may have 2 MB at most.',
    ]);
  });

  test('problems are kept apart from what is sound', async () => {
    const { snippets, problems } = await read(['in/b.html', 'gone.html', 'none/*.html']);
    expect(snippets).toHaveLength(1);
    expect(problems.map(({ message }) => message)).toEqual([
      'gone.html does not exist.',
      'No file fits the pattern none/*.html.',
    ]);
  });

  test('an address stands for the page that is there, also one with a query', async () => {
    const { snippets } = await read(['HTTPS://Desk.example/visit/?day=sat', 'http://desk.example']);
    expect(snippets.map(({ name, path, text }) => [name, path, text])).toEqual([
      ['desk.example/visit/?day=sat', 'https://desk.example/visit/?day=sat', ''],
      ['desk.example', 'http://desk.example/', ''],
    ]);
    expect(snippets[0]!.published?.address).toBe('https://desk.example/visit/?day=sat');
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

describe('documents and lists', () => {
  const take = async (name: string, content: string, extract = false) => {
    put(`docs/${name}`, content);
    const { snippets } = await readInputs([`docs/${name}`], [], folder, Readable.from([]), extract);
    return snippets.map(({ name: called, line, text, slot }) => [called, line, text, slot]);
  };

  test('of Markdown the fenced blocks that are markup, with the lines of the document', async () => {
    const text =
      '# Map\n\n```html\n<p>a</p>\n```\n\n```css\np {}\n```\n\n1. so\n\n   ~~~\n   <i>b</i>\n   ~~~\n\n`<b>c</b>`\n';
    expect(await take('a.md', text)).toEqual([
      ['a.md#1', 4, '<p>a</p>\n', undefined],
      ['a.md#2', 14, '<i>b</i>\n', undefined],
    ]);
  });

  test('of an HTML document the blocks that show code, where that is asked for', async () => {
    const page =
      '<h1>x</h1>\n<pre><code>\n&lt;p&gt;a &amp;amp; b&lt;/p&gt;\n</code></pre><p>Use <code>&lt;b&gt;</code>.</p><textarea>\n<i>c</i></textarea>';
    expect(await take('a.html', page, true)).toEqual([
      ['a.html#1', 3, '<p>a &amp; b</p>\n', undefined],
      ['a.html#2', 5, '<i>c</i>', undefined],
    ]);
    expect(await take('b.html', page)).toEqual([['b.html', undefined, page, undefined]]);
  });

  test('of a list one a record, with name and slot', async () => {
    const csv = 'Name;Slot;Code\nmap;column;"<p>a</p>\n<i>""b""</i>"\n\n;;<b class="c">d</b>\n;;\n';
    expect(await take('a.csv', csv)).toEqual([
      ['map', 2, '<p>a</p>\n<i>"b"</i>', 'column'],
      ['a.csv#2', 5, '<b class="c">d</b>', undefined],
    ]);
    const json = '{ "snippets": [{ "name": 7, "code": "<p>a</p>", "slot": "aside" }] }';
    expect(await take('a.json', json)).toEqual([['7', 1, '<p>a</p>', 'aside']]);
    const lines = '{"name":"a","code":"<p>a</p>"}\n\n{"code":"<p>b</p>"}\n';
    expect(await take('a.jsonl', lines)).toEqual([
      ['a', 1, '<p>a</p>', undefined],
      ['a.jsonl#2', 3, '<p>b</p>', undefined],
    ]);
  });

  test('a record without code, or that is none, costs itself and is told', async () => {
    const read = async (name: string, content: string) => {
      put(`docs/${name}`, content);
      const taken = await readInputs([`docs/${name}`], [], folder, Readable.from([]));
      return [taken.snippets.map(({ text }) => text), taken.problems.map((one) => one.message)];
    };
    expect(await read('z.csv', 'name,code\nmap,\nfilm,<p>a</p>\n,\n')).toEqual([
      ['<p>a</p>'],
      ['docs/z.csv, line 2 ("map"), has no code.'],
    ]);
    expect(await read('z.json', '[{"code":"<p>a</p>"},{"name":"b","code":" "},{}]')).toEqual([
      ['<p>a</p>'],
      [
        'docs/z.json, record 2 ("b"), has no code.',
        'docs/z.json, record 3 must have a text under `code`.',
      ],
    ]);
    expect(await read('z.jsonl', '{"code":"<p>a</p>"}\n{"code"\n')).toEqual([
      ['<p>a</p>'],
      [expect.stringMatching(/^docs\/z\.jsonl, line 2 is no JSON: /)],
    ]);
  });

  test.each([
    ['x.json', '[{"name":"x"}]', 'docs/x.json, record 1 must have a text under `code`.'],
    ['x.json', '7', 'docs/x.json must be a list of objects with `code`, or have one under'],
    ['y.json', '{"a": 3', 'docs/y.json is no JSON: '],
    ['x.jsonl', '\n{"code":3}', 'docs/x.jsonl, line 2 must have a text under `code`.'],
    ['x.csv', 'a,b\n1,2\n', 'docs/x.csv has no column `code`; its first line must name'],
    ['x.csv', 'name,code\na,"<p>', 'docs/x.csv is no CSV: '],
    ['x.md', '# Map', 'docs/x.md has not a fenced block of markup in it.'],
  ])('what is wrong with one is said: %s %j', async (name, content, complaint) => {
    await expect(take(name, content)).rejects.toThrow(complaint);
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
