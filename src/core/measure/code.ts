import type { ScriptFact } from '../evidence.js';
import { getElementAt, getTagSpan, type Markup } from '../markup/markup.js';
import { isScript } from '../markup/traits.js';
import type { Span } from '../snippet.js';
import { atSpan, getHead, type Blame } from './blame.js';

/** Where the snippet is to blame for what code did: at its word, or by the tag of the script with an address. */
export function atCode(
  markup: Markup,
  { from, address }: Pick<ScriptFact['errors'][number], 'from' | 'address'>,
): Blame {
  const offset = from && 'offset' in from ? from.offset : null;
  return atSpan(offset === null ? getHead(markup) : getPiece(markup, offset, address !== null));
}

function getPiece(markup: Markup, offset: number, elsewhere: boolean): Span {
  const element = elsewhere ? getElementAt(markup, offset) : null;
  if (element && isScript(element)) return getTagSpan(element);
  const word = /^[\w$.]+/.exec(markup.text.slice(offset, offset + 200))?.[0] ?? ' ';
  return { offset, endOffset: Math.min(offset + word.length, markup.text.length) };
}
