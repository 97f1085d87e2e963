import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { writeMended, type MendedText } from '../../src/run/write-mended.js';

let folder: string;
beforeAll(() => void (folder = mkdtempSync(join(tmpdir(), 'mivket-mend-'))));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const OLD = '<p class="bed">Bean\n<b>Pea</b></p>';
const NEW = '<p class="beds">Bean\n<b>Pea</b></p>';

/** Writes a file, mends the piece in it, and tells what it is then. */
async function mendIn(name: string, bytes: Buffer | string, piece: Partial<MendedText['snippet']>) {
  const path = join(folder, name);
  writeFileSync(path, bytes);
  const snippet = { name, path: name, text: OLD, ...piece };
  const { original } = await writeMended([{ snippet, text: NEW }], 'in place', folder);
  return { now: readFileSync(path), original };
}

describe('what was mended is written', () => {
  const utf16 = (text: string) => Buffer.from(`\ufeff${text}`, 'utf16le');
  test.each([
    ['UTF-8', Buffer.from],
    ['UTF-8 with a mark', (text: string) => Buffer.from(`\ufeff${text}`)],
    ['UTF-16', utf16],
    ['UTF-16, the high byte first', (text: string) => utf16(text).swap16()],
  ] as [string, (text: string) => Buffer][])(
    'in the encoding of its file: %s',
    async (_, encode) => {
      const { now, original } = await mendIn('a.html', encode(OLD), {});
      expect(now.equals(encode(NEW))).toBe(true);
      expect(readFileSync(original!).equals(encode(OLD))).toBe(true);
    },
  );

  test.each([
    ['a block', 'x.md', (code: string) => `# Beds\n\n\`\`\`html\n${code}\n\`\`\`\n`, { line: 4 }],
    [
      'a block in a list',
      'y.md',
      (code: string) =>
        `- Beds\n\n   \`\`\`html\n   ${code.replaceAll('\n', '\n   ')}\n   \`\`\`\n`,
      { line: 4, indent: 3 },
    ],
    [
      'a record of quoted fields',
      'x.csv',
      (code: string) => `name,code\r\nbeds,"${code.replaceAll('"', '""')}"\r\n`,
      { line: 2 },
    ],
    [
      'a JSON string',
      'x.jsonl',
      (code: string) => `{"code":"<p>1"}\n${JSON.stringify({ code })}\n`,
      { line: 2 },
    ],
  ])('in %s, and no other character is changed', async (_, name, wrap, piece) => {
    expect(String((await mendIn(name, wrap(OLD), piece)).now)).toBe(wrap(NEW));
  });

  const escape = (code: string) => code.replaceAll('<', '&lt;').replaceAll('"', '&#34;');
  test.each([
    ['escaped', 'a.html', (code: string) => `<p>Beds</p>\n<pre>\n\n${escape(code)}</pre>\n`, 4],
    [
      'coloured by tags, with line breaks of two',
      'b.html',
      (code: string) =>
        `<p>${OLD}</p><pre class="a"><i>${escape(code).replace('Bean', '</i>Be<b>a</b>n').replace('\n', '\r\n')}</pre>`,
      2,
    ],
    ['raw', 'c.htm', (code: string) => `<h1>Beds</h1><xmp>${code}</xmp>`, 1],
    [
      'in a JSON text that escapes more than it has to',
      'd.json',
      (code: string) => {
        const odd = code.replaceAll('<', '\\u003c').replaceAll('"', '\\"').replace('\n', '\\n');
        return `[{"code": "${odd}\\ud83c\\udf31"}]`;
      },
      1,
    ],
  ])('as it is written there: %s', async (_, name, wrap, line) => {
    const end = name === 'd.json' ? '\u{1f331}' : '';
    const text = OLD + end;
    writeFileSync(join(folder, name), wrap(OLD));
    const snippet = { name, path: name, text, line };
    const all = [{ snippet, text: NEW + end }];
    await writeMended(all, 'in place', folder);
    expect(readFileSync(join(folder, name), 'utf8')).toBe(wrap(NEW));
  });

  test.each([
    ['windows-1252', (text: string) => Buffer.from(text, 'latin1'), '\xe9'],
    [
      'iso-8859-1',
      (text: string) => Buffer.from(text.replaceAll('\u0161', '\x9a'), 'latin1'),
      '\u0161',
    ],
    [
      'koi8-r',
      (text: string) => Buffer.from(text.replaceAll('\u0431', '\xc2'), 'latin1'),
      '\u0431',
    ],
  ])('in an encoding of before Unicode: %s', async (charset, encode, letter) => {
    const wrap = (code: string) => encode(`<meta charset="${charset}"><p>${letter}</p>${code}`);
    const path = 'old.html';
    writeFileSync(join(folder, path), wrap(OLD));
    const text = `<meta charset="${charset}"><p>${letter}</p>`;
    const write = (mended: string) =>
      writeMended(
        [{ snippet: { name: path, path, text: text + OLD }, text: text + mended }],
        'in place',
        folder,
      );
    await write(NEW);
    expect(readFileSync(join(folder, path)).equals(wrap(NEW))).toBe(true);
    writeFileSync(join(folder, path), wrap(OLD));
    await expect(write(`${NEW}\u4e00`)).rejects.toThrow('does not have all letters');
    expect(readFileSync(join(folder, path)).equals(wrap(OLD))).toBe(true);
  });

  test('not where it stands there in another way, or twice, or was changed meanwhile', async () => {
    const odd = `\n${OLD.replace('bed', '&#98;ed')}\n`;
    await expect(mendIn('odd.md', odd, { line: 2 })).rejects.toThrow(
      'odd.md is left as it is: the code of line 2 is written there in a way of its own',
    );
    expect(readFileSync(join(folder, 'odd.md'), 'utf8')).toBe(odd);
    await expect(mendIn('twice.md', `\n\n${OLD}\n${OLD}\n`, { line: 1 })).rejects.toThrow('line 1');
    await expect(mendIn('other.html', 'something else', {})).rejects.toThrow('changed meanwhile');
    const wide = Buffer.from('<meta charset="utf-7"><p>caf\xe9', 'latin1');
    await expect(mendIn('wide.html', wide, {})).rejects.toThrow('save it as UTF-8 first');
  });

  test('beside the file as it was, unless version control has that', async () => {
    const first = await mendIn('kept.html', OLD, {});
    const second = await mendIn('kept.html', OLD, {});
    expect([first.original, second.original]).toEqual([
      join(folder, 'kept.html.orig'),
      join(folder, 'kept.html.orig-2'),
    ]);
    const git = (...args: string[]) =>
      execFileSync('git', [
        '-C',
        folder,
        '-c',
        'user.name=x',
        '-c',
        'user.email=x@desk.example',
        ...args,
      ]);
    git('init', '-q');
    writeFileSync(join(folder, 'known.html'), OLD);
    git('add', 'known.html');
    git('commit', '-qm', 'beds');
    expect((await mendIn('known.html', OLD, {})).original).toBeNull();
  });

  test('into a folder under the same name, and what came from nowhere under its own', async () => {
    writeFileSync(join(folder, 'beds.html'), OLD);
    const out = { folder: join(folder, 'out') };
    const snippet = { name: 'beds.html', path: 'beds.html', text: OLD };
    const { path } = await writeMended([{ snippet, text: NEW }], out, folder);
    expect(readFileSync(path, 'utf8')).toBe(NEW);
    expect(readFileSync(join(folder, 'beds.html'), 'utf8')).toBe(OLD);
    const loose = { snippet: { ...snippet, name: 'code', path: null }, text: NEW };
    expect((await writeMended([loose], out, folder)).path).toBe(join(out.folder, 'code.html'));
  });
});
