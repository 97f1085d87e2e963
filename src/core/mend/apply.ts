import MagicString from 'magic-string';
import type { Edit } from '../snippet.js';

/** A text with edits made. Edits must not overlap. */
export function applyEdits(text: string, edits: readonly Edit[]): string {
  const made = new MagicString(text);
  for (const { offset, endOffset, text: insert } of edits) {
    if (offset === endOffset) made.appendLeft(offset, insert);
    else if (insert === '') made.remove(offset, endOffset);
    else made.update(offset, endOffset, insert);
  }
  return made.toString();
}

/** The lines that edits change, as they read afterwards, without the white space around. */
export function getMendedLines(text: string, edits: readonly Edit[]): string {
  const start = Math.min(...edits.map(({ offset }) => offset));
  const end = Math.max(...edits.map(({ endOffset }) => endOffset));
  const from = text.lastIndexOf('\n', start - 1) + 1;
  const next = text.indexOf('\n', end);
  const piece = text.slice(from, next < 0 ? text.length : next);
  const moved = edits.map((edit) => ({
    ...edit,
    offset: edit.offset - from,
    endOffset: edit.endOffset - from,
  }));
  return applyEdits(piece, moved).trim();
}
