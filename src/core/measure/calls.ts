import { flatMap } from '../lists.js';
import { getElementAt, getTagSpan, getValue, type Markup } from '../markup/markup.js';
import { isScript } from '../markup/traits.js';
import type { Span } from '../snippet.js';

/** The line of code at an offset, as far as it stands in one script; the tag of a script that is loaded. */
export function findLine(markup: Markup, offset: number): Span {
  const end = markup.text.slice(offset).search(/\r|\n|$/) + offset;
  const element = getElementAt(markup, offset);
  if (element?.name === 'script' && getValue(element, 'src') !== null) return getTagSpan(element);
  const start = Math.max(offset, element?.tagEnd ?? 0);
  const close = markup.text.indexOf('</script', start);
  const stop = close > start ? Math.min(end, close) : end;
  const line = markup.text.slice(start, stop);
  const lead = line.length - line.trimStart().length;
  return line.trim()
    ? { offset: start + lead, endOffset: start + line.trimEnd().length }
    : { offset: start, endOffset: stop };
}

/** The script, or the element, whose text has the call; else the first script. */
export function findCall(markup: Markup, call: RegExp): Span {
  const scripts = markup.elements.filter(isScript);
  const inline = scripts.find((script) => call.test(script.text));
  const match = inline && call.exec(markup.text.slice(inline.tagEnd));
  if (inline && match)
    return {
      offset: inline.tagEnd + match.index,
      endOffset: inline.tagEnd + match.index + match[0].length,
    };
  const attribute = flatMap(markup.elements, ({ attributes }) => attributes).find(
    ({ name, value }) => call.test(`${name} ${value}`),
  );
  if (attribute) return { offset: attribute.offset, endOffset: attribute.endOffset };
  const first = scripts[0] ?? markup.elements[0];
  return first ? getTagSpan(first) : { offset: 0, endOffset: 0 };
}
