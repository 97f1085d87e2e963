import type { Span } from '../snippet.js';

/** What a cure is to bring about, not yet how it is written: those of several findings are put together. */
export type Intent =
  /** `element`: the offset of its tag. Values of CSS properties, in the order in which they are to stand. */
  | { do: 'set-style'; element: number; declarations: Readonly<Record<string, string>> }
  /** A value of null: the bare name. */
  | { do: 'set-attribute'; element: number; name: string; value: string | null }
  | { do: 'remove-attribute'; element: number; name: string }
  /** Of no length: an insertion. */
  | { do: 'replace-text'; span: Span; text: string }
  /** What only a person can say. */
  | { do: 'ask'; question: string };
