/** A message of more than this says more than a size. */
const LONGEST = 2000;
const DEEPEST = 3;
const MOST_KEYS = 30;
/** Sizes beyond are none of a document in a frame, px. */
const [LEAST, MOST] = [1, 100_000];

const HEIGHT_KEY = /height|^h$/i;
/** Words of scripts that bring frames to the size of their content. */
const SIZED_TEXT = /height|resiz|\bsize\b|iframe/i;

/**
 * The height that a frame's page posts of itself, px; null where the message tells of none. There is no
 * standard for it: an object or JSON with a height in it, a bare number, or a number behind a word for it.
 */
export function parseHeight(data: unknown, depth = 0): number | null {
  if (typeof data === 'number') return toHeight(data);
  if (typeof data === 'string') return parseText(data, depth);
  if (typeof data !== 'object' || data === null || depth >= DEEPEST) return null;
  const entries = Object.entries(data).slice(0, MOST_KEYS);
  const named = entries.filter(([key]) => HEIGHT_KEY.test(key));
  for (const [, value] of named) {
    const height = toHeight(value);
    if (height !== null) return height;
  }
  for (const [, value] of entries) {
    const nested = typeof value === 'object' ? parseHeight(value, depth + 1) : null;
    if (nested !== null) return nested;
  }
  return null;
}

function parseText(text: string, depth: number): number | null {
  if (text.length > LONGEST) return null;
  if (/^\s*[[{]/.test(text)) {
    try {
      return parseHeight(JSON.parse(text), depth + 1);
    } catch {
      // It only looks like JSON.
    }
  }
  if (/^\s*[\d.]+(px)?\s*$/.test(text)) return toHeight(text);
  if (!SIZED_TEXT.test(text)) return null;
  const behind = /height\D{0,4}([\d.]+)/i.exec(text) ?? /\b(\d{2,5}(?:\.\d+)?)(?:px)?\b/.exec(text);
  return behind ? toHeight(behind[1]) : null;
}

function toHeight(value: unknown): number | null {
  const given = typeof value === 'string' ? value.trim().replace(/px$/, '') : value;
  const height = given === '' ? NaN : Number(given);
  const usual = typeof given === 'string' || typeof given === 'number';
  return usual && height >= LEAST && height <= MOST ? height : null;
}
