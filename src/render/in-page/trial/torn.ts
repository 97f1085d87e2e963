import { getRange, listOwnTexts } from '../ink.js';

/** What may not come apart: signs with no room, no hyphen and no slash between them (UAX 14). */
const WORD = /[^\s/\-\u00ad\u200b\u2010-\u2015]{2,}/gu;
/** Scripts that are written without room between words: their lines end anywhere. */
const UNSPACED =
  /[\p{sc=Han}\p{sc=Hira}\p{sc=Kana}\p{sc=Hang}\p{sc=Thai}\p{sc=Laoo}\p{sc=Khmr}\p{sc=Mymr}]/u;
/** Lines lie farther apart than this, px. */
const LINE = 3;
/** So many words of an element are looked at. */
const MOST = 200;

/** Whether an element lets its words come apart as it stands. */
export function breaksWords(node: Element): boolean {
  const { overflowWrap, wordBreak, hyphens } = getComputedStyle(node);
  return overflowWrap !== 'normal' || /break/.test(wordBreak) || hyphens === 'auto';
}

/** Whether a word of an element's own stands in two lines that would have had room in one. @param room px */
export function hasTorn(node: Element, room: number): boolean {
  let looked = 0;
  for (const text of listOwnTexts(node)) {
    for (const { index, 0: word } of (text.nodeValue ?? '').matchAll(WORD)) {
      if (++looked > MOST) return false;
      if (UNSPACED.test(word)) continue;
      const range = getRange(text);
      range.setStart(text, index);
      range.setEnd(text, index + word.length);
      const pieces = [...range.getClientRects()];
      const [first, last] = [pieces[0], pieces.at(-1)];
      if (!first || !last || Math.abs(first.top - last.top) <= LINE) continue;
      if (pieces.reduce((sum, { width }) => sum + width, 0) <= room) return true;
    }
  }
  return false;
}
