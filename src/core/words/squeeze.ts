/** A text with all white space as single spaces, and none around it. */
export function squeeze(text: string): string {
  return text.replace(/\s+/g, ' ').trim();
}
