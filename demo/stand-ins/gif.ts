/** A GIF of two by two px in two greens, with as many frames as it has shades (GIF89a). */
export function makeGif(shades: readonly (0 | 1)[]): Uint8Array<ArrayBuffer> {
  const header = [...ascii('GIF89a'), 2, 0, 2, 0, 0x80, 0, 0, 0x24, 0x6b, 0x35, 0x9a, 0xc8, 0xa4];
  const endless = [0x21, 0xff, 11, ...ascii('NETSCAPE2.0'), 3, 1, 0, 0, 0];
  const frames = shades.flatMap((shade) => [
    ...[0x21, 0xf9, 4, 0, 50, 0, 0, 0],
    ...[0x2c, 0, 0, 0, 0, 2, 0, 2, 0, 0],
    ...[2, 4, ...pack([4, shade, 4, shade, 4, shade, 4, shade, 5]), 0],
  ]);
  return Uint8Array.from([...header, ...(shades.length > 1 ? endless : []), ...frames, 0x3b]);
}

function ascii(text: string): number[] {
  return Array.from(text, (letter) => letter.charCodeAt(0));
}

/** Codes of three bits, the first in the lowest. */
function pack(codes: readonly number[]): number[] {
  const bits = codes.reduce((all, code, i) => all | (BigInt(code) << BigInt(3 * i)), 0n);
  return Array.from({ length: 4 }, (_, i) => Number((bits >> BigInt(8 * i)) & 255n));
}
