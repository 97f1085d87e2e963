import { flatMap } from '../lists.js';
import type { Markup, MarkupElement } from './markup.js';
import { matchTags } from './unparsed.js';

/** A tag that stands within another, for want of a `>`, so that the parser makes no tag of it. */
export interface LostTag {
  /** Where the tag begins that does not end. */
  offset: number;
  /** Where that was to end. */
  end: number;
  /** Where the lost one begins, and how it is written. */
  at: number;
  lost: string;
}

/** Tags that have another in them: one of the attributes, or the tag's own name, begins or ends as a tag. */
export function listLostTags(markup: Markup): LostTag[] {
  const { text, elements } = markup;
  const starts = flatMap(elements, (element) => {
    // Hardly any tag has another sign of the kind in it.
    if (!text.slice(element.offset + 1, element.tagEnd).includes('<')) return [];
    const at = blankValues(text, element).search(/<\/?[a-z]/i);
    return at < 0 ? [] : [{ offset: element.offset, at: element.offset + 1 + at }];
  });
  const ends = matchTags(text, /<\/[a-z][a-z0-9-]*\s*(?=<)/gi)
    .filter(({ index }) => elements.every((one) => one.tagEnd <= index || one.offset > index))
    .map((match) => ({ offset: match.index, at: match.index + match[0].length }));
  return [...starts, ...ends].map(({ offset, at }) => {
    const lost = /^<[^<>]*>?/.exec(text.slice(at))![0];
    return { offset, at, lost, end: text.slice(0, at).trimEnd().length };
  });
}

/** A start tag without its first sign, with blanks for the values of its attributes. */
function blankValues(text: string, { offset, tagEnd, attributes }: MarkupElement): string {
  let written = text.slice(offset + 1, tagEnd);
  for (const one of attributes) {
    const equals = text.slice(one.offset, one.endOffset).indexOf('=');
    if (equals < 0) continue;
    const [from, to] = [one.offset + equals - offset - 1, one.endOffset - offset - 1];
    written = written.slice(0, from) + ' '.repeat(to - from) + written.slice(to);
  }
  return written;
}
