/** Signs of a picture of several frames, near the beginning of its file. */
const SIGNS: readonly [begins: string, has: string][] = [
  ['GIF8', 'NETSCAPE2.0'],
  ['GIF8', 'ANIMEXTS1.0'],
  ['\x89PNG', 'acTL'],
  ['RIFF', 'ANIM'],
  ['\0\0\0', 'ftypavis'],
];
const FAR = 4096;

/** Whether a file is a picture of several frames, by its first bytes; a GIF that moves once does not say so. */
export function tellsMotion(bytes: Uint8Array): boolean {
  const text = String.fromCharCode(...bytes.subarray(0, FAR));
  return SIGNS.some(([begins, has]) => text.startsWith(begins) && text.includes(has));
}
