import type { RequestFact } from '../evidence.js';
import { listAddresses } from '../markup/addresses.js';
import { getElementAt, type Markup, type MarkupElement } from '../markup/markup.js';
import { getSourceOffset } from './blame.js';

/**
 * The element that something was asked for by; null where that is not known. Of what the parser asks for the browser
 * tells where that stood by then: behind the tag, where another may begin.
 * @param origin the page's own
 */
export function findAsking(
  markup: Markup,
  { first, from, type }: Pick<RequestFact, 'first' | 'from' | 'type'>,
  origin: string,
): MarkupElement | null {
  const named = listAddresses(markup, origin).find(({ url }) => url.href === first);
  if (named) return named.element;
  const importing = type === 'style' ? findImporting(markup, first) : undefined;
  const offset = getSourceOffset(from);
  return importing ?? (offset === null ? null : getElementAt(markup, offset));
}

/** A style that imports a sheet. */
function findImporting({ elements }: Markup, address: string): MarkupElement | undefined {
  const named = address.replace(/^\w+:/, '');
  return elements.find(({ name, text }) => name === 'style' && text.includes(named));
}
