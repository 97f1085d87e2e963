import type { Spot, Span } from '../snippet.js';

/** Offsets at which each line of a text starts; line breaks are LF, CR LF or CR. */
export function getLineStarts(text: string): number[] {
  const starts = [0];
  for (const match of text.matchAll(/\r\n|\n|\r/g)) starts.push(match.index + match[0].length);
  return starts;
}

/** Turns a span into lines and columns. */
export function getSpot(starts: readonly number[], span: Span): Spot {
  const from = locate(starts, span.offset);
  const to = locate(starts, span.endOffset);
  return {
    ...from,
    endLine: to.line,
    endColumn: to.column,
    offset: span.offset,
    endOffset: span.endOffset,
  };
}

function locate(starts: readonly number[], offset: number): { line: number; column: number } {
  let low = 0;
  let high = starts.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (starts[middle]! <= offset) low = middle;
    else high = middle - 1;
  }
  return { line: low + 1, column: offset - starts[low]! + 1 };
}
