/** What JSON says; null for what is none: the shape is looked at next. */
export function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
