import { flatMap } from '../lists.js';
import type { House } from '../house/house.js';
import type { Edit } from '../snippet.js';
import { listAlterations } from './filtered.js';
import type { Markup } from './markup.js';

/** A snippet as the site keeps it. */
export interface FilteredCode {
  text: string;
  /** Where in the snippet stands what stands at an offset of the text; null for what the site put in. */
  getSource(offset: number): number | null;
}

/** Does to a snippet what the house's filter says that the site does. */
export function filterCode(markup: Markup, filter: NonNullable<House['filter']>): FilteredCode {
  const all = listAlterations(markup, filter);
  const end = all.find(({ what }) => what === 'cut')?.where.offset ?? markup.text.length;
  const edits = flatMap(all, (one) => one.edits).filter(({ offset }) => offset <= end);
  const pieces: Piece[] = [];
  let at = 0;
  let length = 0;
  const add = (text: string, from: number | null) => {
    if (text !== '') pieces.push({ text, at: length, from });
    length += text.length;
  };
  for (const { offset, endOffset, text } of order(edits)) {
    // What is taken out with what it stands in is gone already.
    if (offset < at) continue;
    add(markup.text.slice(at, offset), at);
    add(text, null);
    at = endOffset;
  }
  add(markup.text.slice(at), at);
  return {
    text: pieces.map((piece) => piece.text).join(''),
    getSource(offset) {
      const piece = pieces.findLast((one) => one.at <= offset);
      return piece && piece.from !== null ? piece.from + offset - piece.at : null;
    },
  };
}

interface Piece {
  text: string;
  at: number;
  /** Where it stands in the snippet; null where the site put it in. */
  from: number | null;
}

/** As they stand in the source; what ends before what begins, and what is put in before what goes. */
function order(edits: readonly Edit[]): Edit[] {
  const rank = ({ offset, endOffset, text }: Edit) =>
    offset < endOffset ? 2 : Number(!text.startsWith('</'));
  return [...edits].sort((a, b) => a.offset - b.offset || rank(a) - rank(b));
}
