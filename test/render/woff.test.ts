import { expect, test } from '@jest/globals';
import { deflateSync } from 'node:zlib';
import { getFontsConf } from '../../src/render/browser/fonts.js';
import { unwrapWoff } from '../../src/render/browser/woff.js';

/** A WOFF of two tables: one deflated, one stored. */
function makeWoff(): Buffer {
  const tables = [
    { tag: 'cmap', raw: Buffer.alloc(50, 7), data: deflateSync(Buffer.alloc(50, 7)) },
    { tag: 'head', raw: Buffer.from('abc'), data: Buffer.from('abc') },
  ];
  const head = Buffer.alloc(44);
  head.write('wOFF', 0);
  head.writeUInt32BE(0x00010000, 4);
  head.writeUInt16BE(tables.length, 12);
  let offset = 44 + 20 * tables.length;
  const entries = tables.map(({ tag, raw, data }) => {
    const entry = Buffer.alloc(20);
    entry.write(tag, 0);
    entry.writeUInt32BE(offset, 4);
    entry.writeUInt32BE(data.length, 8);
    entry.writeUInt32BE(raw.length, 12);
    entry.writeUInt32BE(99, 16);
    offset += data.length;
    return entry;
  });
  return Buffer.concat([head, ...entries, ...tables.map(({ data }) => data)]);
}

test('a WOFF gives the font it wraps: same kind, tables unpacked, on bounds of four bytes', () => {
  const font = unwrapWoff(makeWoff());
  expect(font.readUInt32BE(0)).toBe(0x00010000);
  expect(font.readUInt16BE(4)).toBe(2);
  const entries = [12, 28].map((at) => ({
    tag: font.toString('latin1', at, at + 4),
    checksum: font.readUInt32BE(at + 4),
    offset: font.readUInt32BE(at + 8),
    length: font.readUInt32BE(at + 12),
  }));
  expect(entries).toEqual([
    { tag: 'cmap', checksum: 99, offset: 44, length: 50 },
    { tag: 'head', checksum: 99, offset: 96, length: 3 },
  ]);
  expect(font.subarray(44, 94)).toEqual(Buffer.alloc(50, 7));
  expect(font.toString('latin1', 96)).toBe('abc\0');
});

test('the fonts file has absolute paths and no hinting', () => {
  const conf = getFontsConf('/home/desk/.cache/mivket/b');
  expect(conf).toContain('<dir>/home/desk/.cache/mivket/b/fonts</dir>');
  expect(conf).toContain('<cachedir>/home/desk/.cache/mivket/b/fonts-cache</cachedir>');
  expect(conf).toContain('<edit name="hinting" mode="assign"><bool>false</bool></edit>');
});
