/** A piece of a sentence; `code` is what stood between backticks. */
export interface Piece {
  text: string;
  code: boolean;
}

/** A sentence of ours, with what is code in it apart. */
export function splitCode(words: string): Piece[] {
  return words
    .split(/`([^`]*)`/)
    .map((text, i) => ({ text, code: i % 2 === 1 }))
    .filter(({ text }) => text !== '');
}
