import type { Span } from '../snippet.js';
import { squeeze } from '../words/squeeze.js';

const LONGEST = 160;

/** The source that a finding points at, on one line, shortened in the middle where it is long. */
export function getExcerpt(text: string, span: Span): string {
  const piece = squeeze(text.slice(span.offset, span.endOffset));
  if (piece.length <= LONGEST) return piece;
  const half = (LONGEST - 3) / 2;
  return `${piece.slice(0, Math.ceil(half))} … ${piece.slice(-Math.floor(half))}`;
}
