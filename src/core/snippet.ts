import * as z from 'zod';

/** A page as it is published: where it is, and what it was answered with. */
export const publishedSchema = z.object({
  /** Absolute, after redirects. */
  address: z.string(),
  headers: z.record(z.string(), z.string()),
});
export type Published = z.output<typeof publishedSchema>;

/** One pasted piece of markup under review. `text` is what was pasted, to the character. */
export interface Snippet {
  /** Unique within a run: the file's name, or a path where two files share one. */
  name: string;
  /** Where it came from, for the reader; null for standard input and --code. */
  path: string | null;
  text: string;
  /** The line of its file that it begins in, from 1; left out: the first. */
  line?: number;
  /** How many columns of its file stand before each of its lines, as in a list; left out: none. */
  indent?: number;
  /** The name of the one slot that it is for; left out: all that are asked for. */
  slot?: string;
  /** It is a whole page, which stands where it is: it comes into no slot. Left out: a paste. */
  published?: Published;
}

/** Half-open range of UTF-16 offsets (0-based) into a snippet's text. */
export interface Span {
  offset: number;
  endOffset: number;
}

/** Whether one lies in another, from end to end. */
export function isWithin({ offset, endOffset }: Span, around: Span): boolean {
  return offset >= around.offset && endOffset <= around.endOffset;
}

/** A span with lines and columns, 1-based, as editors count them. */
export interface Spot extends Span {
  line: number;
  column: number;
  endLine: number;
  endColumn: number;
}

/** A change to a snippet's text: `text` takes the place of the span. */
export interface Edit extends Span {
  text: string;
}
