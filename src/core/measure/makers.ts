import { getTagSpan, type Markup } from '../markup/markup.js';
import { isScript } from '../markup/traits.js';
import type { Span } from '../snippet.js';
import { getHead } from './blame.js';
import { findCall } from './calls.js';

/** What of a snippet does something to the page: code can do anything, so it is named first; a sheet comes next. */
export function locateMaker(markup: Markup, call: RegExp | null = null): Span {
  const { elements } = markup;
  const script = elements.find(isScript);
  const sheet = elements.find(({ name }) => name === 'style');
  if (call && (script || !sheet)) return findCall(markup, call);
  const maker = script ?? sheet;
  return maker ? getTagSpan(maker) : getHead(markup);
}
