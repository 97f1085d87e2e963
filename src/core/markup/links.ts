import { flatMap } from '../lists.js';
import { parseAddress } from '../measure/site.js';
import { listAddresses, type MarkupAddress } from './addresses.js';
import { getAttribute, type Markup } from './markup.js';

const LEADING: Record<string, string> = { a: 'href', area: 'href', form: 'action' };

/** All addresses that the snippet's markup loads from or leads to, seen from `base`. */
export function listLinks(markup: Markup, base: string): MarkupAddress[] {
  const leading = flatMap(markup.elements, (element) => {
    const attribute = getAttribute(element, LEADING[element.name] ?? '');
    const url = attribute && parseAddress(attribute.value.trim(), base);
    return attribute && url ? [{ element, attribute, url }] : [];
  });
  return [...listAddresses(markup, base), ...leading];
}
