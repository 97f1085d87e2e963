import { inflateSync } from 'node:zlib';

const HEADER = 44;
const ENTRY = 20;

/**
 * WOFF 1.0 to the sfnt (TrueType) it wraps, as the WOFF File Format 1.0 recommendation lays it out.
 * A WOFF file among the system fonts ends the browser, so the fonts are unwrapped before use.
 */
export function unwrapWoff(woff: Buffer): Buffer {
  const count = woff.readUInt16BE(12);
  const tables = Array.from({ length: count }, (_, i) => readTable(woff, HEADER + i * ENTRY));
  const head = Buffer.alloc(12 + count * 16);
  const power = Math.floor(Math.log2(count));
  head.writeUInt32BE(woff.readUInt32BE(4), 0);
  head.writeUInt16BE(count, 4);
  head.writeUInt16BE(16 * 2 ** power, 6);
  head.writeUInt16BE(power, 8);
  head.writeUInt16BE(count * 16 - 16 * 2 ** power, 10);
  let offset = head.length;
  const bodies = tables.map((table, i) => {
    const at = 12 + i * 16;
    head.write(table.tag, at, 'latin1');
    head.writeUInt32BE(table.checksum, at + 4);
    head.writeUInt32BE(offset, at + 8);
    head.writeUInt32BE(table.data.length, at + 12);
    const padded = Buffer.alloc(Math.ceil(table.data.length / 4) * 4);
    table.data.copy(padded);
    offset += padded.length;
    return padded;
  });
  return Buffer.concat([head, ...bodies]);
}

function readTable(woff: Buffer, at: number): { tag: string; checksum: number; data: Buffer } {
  const start = woff.readUInt32BE(at + 4);
  const packed = woff.readUInt32BE(at + 8);
  const size = woff.readUInt32BE(at + 12);
  const raw = woff.subarray(start, start + packed);
  return {
    tag: woff.toString('latin1', at, at + 4),
    checksum: woff.readUInt32BE(at + 16),
    data: packed < size ? inflateSync(raw) : raw,
  };
}
