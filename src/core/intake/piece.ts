import type { ToolError } from '../errors.js';

/** A piece of code that was taken out of a document. */
export interface CodePiece {
  text: string;
  /** What the document calls it; null where it has no name. */
  name: string | null;
  /** The line of the document that it begins in, from 1. */
  line: number;
  /** How many columns of the document stand before each of its lines; left out: none. */
  indent?: number;
  /** The slot that it is for; null where none is named. */
  slot: string | null;
}

/** One of those that a document has, or what is wrong with it. */
export type Taken = CodePiece | ToolError;
