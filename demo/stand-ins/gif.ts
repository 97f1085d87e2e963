/** How a GIF is made. */
export interface GifWish {
  /** The shade of each frame: the first or the second of the colours. */
  shades: readonly (0 | 1)[];
  /** Red, green and blue of the two. */
  colours?: readonly [readonly number[], readonly number[]];
  width?: number;
  height?: number;
  /** How long a frame is shown, hundredths of a second. */
  delay?: number;
  /** How often it is shown again; 0: without an end. */
  again?: number;
}

const GREENS = [
  [0x24, 0x6b, 0x35],
  [0x9a, 0xc8, 0xa4],
] as const;

/** A GIF of one colour in each frame (GIF89a). */
export function makeGif({
  shades,
  colours: [first, second] = GREENS,
  width = 2,
  height = 2,
  delay = 50,
  again = 0,
}: GifWish): Uint8Array<ArrayBuffer> {
  const size = [...toWord(width), ...toWord(height)];
  const header = [...ascii('GIF89a'), ...size, 0x80, 0, 0, ...first, ...second];
  const repeats = [0x21, 0xff, 11, ...ascii('NETSCAPE2.0'), 3, 1, ...toWord(again), 0];
  const frames = shades.flatMap((shade) => [
    ...[0x21, 0xf9, 4, 0, ...toWord(delay), 0, 0],
    ...[0x2c, 0, 0, 0, 0, ...size, 0],
    ...[2, ...toBlocks(pack(shade, width * height)), 0],
  ]);
  return Uint8Array.from([...header, ...(shades.length > 1 ? repeats : []), ...frames, 0x3b]);
}

function ascii(text: string): number[] {
  return Array.from(text, (letter) => letter.charCodeAt(0));
}

function toWord(value: number): [number, number] {
  return [value & 255, value >> 8];
}

/** Bytes in blocks, each behind its length. */
function toBlocks(bytes: readonly number[]): number[] {
  const blocks: number[] = [];
  for (let at = 0; at < bytes.length; at += 255) {
    const block = bytes.slice(at, at + 255);
    blocks.push(block.length, ...block);
  }
  return blocks;
}

/** Codes of three bits, the first in the lowest: each pixel behind a code that forgets those before it, and the end. */
function pack(shade: 0 | 1, pixels: number): number[] {
  const bytes: number[] = [];
  let [held, bits] = [0, 0];
  const add = (code: number) => {
    held |= code << bits;
    bits += 3;
    while (bits >= 8) {
      bytes.push(held & 255);
      held >>= 8;
      bits -= 8;
    }
  };
  for (let pixel = 0; pixel < pixels; pixel++) [4, shade].forEach(add);
  add(5);
  return bits > 0 ? [...bytes, held] : bytes;
}
