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
