import type { Span } from '../snippet.js';
import type { Break } from './enclosure.js';
import { getElementFrom, getValue, listInside, type Markup, type MarkupElement } from './markup.js';

/** Where something that is left open was meant to end. */
export interface LikelyEnd {
  /** What is to be put in another's place; of no length: put in. */
  span: Span;
  text: string;
  /** What it is to come before, or to be in the place of, as written. */
  written: string;
}

/** What writes the end of a comment so that it is none: `-- >`, `->`. */
const COMMENT_END = /--\s+>|(?<!-)->/;
/** So much of what is written is quoted. */
const MOST = 40;

/** Where a tag or a comment was meant to end, where the source tells; null where only the end of all is left. */
export function findLikelyEnd(markup: Markup, found: Break): LikelyEnd | null {
  if (found.kind === 'comment') return findCommentEnd(markup.text, found.span.offset);
  if (found.kind !== 'element' || found.open.length !== 1) return null;
  const open = getElementFrom(markup, found.span.offset);
  const nested = open && findNested(open);
  if (!nested) return null;
  const { offset, tagEnd, name } = nested;
  const written = markup.text.slice(offset, Math.min(tagEnd, offset + MOST));
  return { span: { offset, endOffset: offset }, text: `</${name}>`, written };
}

function findCommentEnd(text: string, from: number): LikelyEnd | null {
  const start = from + '<!--'.length;
  const match = COMMENT_END.exec(text.slice(start));
  if (!match) return null;
  const offset = start + match.index;
  const span = { offset, endOffset: offset + match[0].length };
  return { span, text: '-->', written: match[0] };
}

/** One of a row of elements of one kind that stands in the one before it, which therefore was to end there. */
function findNested(open: MarkupElement): MarkupElement | null {
  const found = listInside(open).filter((one) => {
    const { parent } = one;
    if (!parent || parent === open || !isAlike(one, parent)) return false;
    return (
      parent.parent?.children.some((other) => other !== parent && isAlike(other, one)) ?? false
    );
  });
  return found.length === 1 ? found[0]! : null;
}

function isAlike(a: MarkupElement, b: MarkupElement): boolean {
  const named = getValue(a, 'class')?.trim();
  return a.name === b.name && Boolean(named) && named === getValue(b, 'class')?.trim();
}
