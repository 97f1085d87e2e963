/** The largest text that is taken in, bytes: a paste is far smaller; what is larger is another kind of file. */
export const LARGEST = 2_000_000;
/** The largest document or list that snippets are taken out of, bytes. */
export const LARGEST_DOCUMENT = 100_000_000;

/**
 * Text by its byte order mark, as UTF-8, or else in the encoding that it, or what brought it, states
 * (HTML, 13.2.3.2; XML 1.0, 4.3.3). Null where it is none.
 * @param label the encoding that what brought it states
 */
export function decodeText(bytes: Uint8Array, label?: string): string | null {
  return readEncoded(bytes, label)?.text ?? null;
}

/** The same, with the label of the encoding that it was read by (Encoding, 4.2). */
export function readEncoded(
  bytes: Uint8Array,
  label?: string,
): { text: string; encoding: string } | null {
  const mark = getMark(bytes);
  for (const encoding of mark ? [mark] : [label ?? null, 'utf-8', getStated(bytes)]) {
    const text = encoding === null ? null : decodeAs(bytes, encoding);
    if (encoding !== null && text !== null) return { text, encoding };
  }
  return null;
}

function getStated(bytes: Uint8Array): string | null {
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 1024));
  const stated = /(?:charset|encoding)\s*=\s*["']?\s*([\w.:-]+)/i.exec(head)?.[1];
  return stated === undefined || /^utf-?(8|16)/i.test(stated) ? null : stated;
}

/** Null where it is none in that encoding. */
export function decodeAs(bytes: Uint8Array, label: string): string | null {
  try {
    // In one go Node takes windows-1252 for Latin-1: its dashes and quotes would be lost.
    const decoder = new TextDecoder(label, { fatal: true });
    return decoder.decode(bytes, { stream: true }) + decoder.decode();
  } catch {
    return null;
  }
}

/** The encoding that a byte order mark says. */
export function getMark(bytes: Uint8Array): string | null {
  const [a, b, c] = bytes;
  if (a === 0xef && b === 0xbb && c === 0xbf) return 'utf-8';
  if (a === 0xff && b === 0xfe) return 'utf-16le';
  return a === 0xfe && b === 0xff ? 'utf-16be' : null;
}
