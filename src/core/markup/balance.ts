import { VOID } from '../standards/elements.js';
import type { Markup, MarkupElement } from './markup.js';

/**
 * Whether all that a snippet opens it closes, each in its turn, so plainly that nobody has to parse it again to
 * know: as many start tags as elements, as many end tags as elements that have one, and nothing else in angle
 * brackets. False says nothing: it may be sound all the same.
 */
export function isPlainlyBalanced({ text, elements }: Markup): boolean {
  const { starts, ends, others } = countTags(text);
  if (others > 0 || starts !== elements.length) return false;
  const closing = elements.filter(({ name }) => !VOID.has(name));
  return closing.length === ends && closing.every((one) => isClosed(text, one));
}

/** It ends with its own end tag, and all that is in it before that. */
function isClosed(text: string, { name, children, tagEnd, endOffset }: MarkupElement): boolean {
  const start = endOffset - name.length - 3;
  const tag = text.slice(start, endOffset).toLowerCase();
  return start >= tagEnd && tag === `</${name}>` && children.every((one) => one.endOffset <= start);
}

function countTags(text: string): { starts: number; ends: number; others: number } {
  const count = { starts: 0, ends: 0, others: 0 };
  for (let at = text.indexOf('<'); at >= 0; at = text.indexOf('<', at + 1)) {
    if (isLetter(text.charCodeAt(at + 1))) count.starts++;
    else if (text[at + 1] === '/' && isLetter(text.charCodeAt(at + 2))) count.ends++;
    else count.others++;
  }
  return count;
}

function isLetter(code: number): boolean {
  return (code | 32) >= 97 && (code | 32) <= 122;
}
