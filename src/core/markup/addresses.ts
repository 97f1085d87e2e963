import { getValue, type Markup, type MarkupAttribute, type MarkupElement } from './markup.js';
import { parseAddress } from '../measure/site.js';

/** An address in the markup from which a browser loads something by itself: no links. */
export interface MarkupAddress {
  url: URL;
  element: MarkupElement;
  attribute: MarkupAttribute;
}

const LOADING: Record<string, string[]> = {
  src: ['img', 'iframe', 'embed', 'script', 'video', 'audio', 'source', 'track', 'input', 'frame'],
  data: ['object'],
  poster: ['video'],
  background: ['body', 'table', 'td', 'th'],
  'xlink:href': ['image', 'use', 'script'],
};
const LOADING_LINKS =
  /(^|\s)(stylesheet|icon|preload|modulepreload|prefetch|manifest|preconnect|apple-touch-icon)(\s|$)/i;

const known = new WeakMap<Markup, Map<string, MarkupAddress[]>>();

/** All addresses that the snippet's markup loads from, as URLs seen from `base`. */
export function listAddresses(markup: Markup, base: string): MarkupAddress[] {
  const byBase = known.get(markup) ?? new Map<string, MarkupAddress[]>();
  known.set(markup, byBase);
  const found = byBase.get(base) ?? readAddresses(markup, base);
  byBase.set(base, found);
  return found;
}

function readAddresses(markup: Markup, base: string): MarkupAddress[] {
  return markup.elements.flatMap((element) =>
    getLoading(element).flatMap(({ attribute, text }) => {
      const url = parseAddress(text, base);
      return url ? [{ url, element, attribute }] : [];
    }),
  );
}

function getLoading(element: MarkupElement): { attribute: MarkupAttribute; text: string }[] {
  return element.attributes.flatMap((attribute) => {
    const { name, value } = attribute;
    const text = value.trim();
    if (!text) return [];
    if (LOADING[name]?.includes(element.name)) return [{ attribute, text }];
    if (name === 'srcset' || name === 'imagesrcset')
      return splitSrcset(text).map((one) => ({ attribute, text: one }));
    const isLoad =
      name === 'href' &&
      ((element.name === 'link' && LOADING_LINKS.test(getValue(element, 'rel') ?? '')) ||
        /^(image|use|feImage)$/.test(element.name));
    return isLoad ? [{ attribute, text }] : [];
  });
}

/** The addresses of a srcset (HTML, "parse a srcset attribute"). */
function splitSrcset(text: string): string[] {
  return text
    .split(/,\s+|,$/)
    .map((candidate) => candidate.trim().split(/\s+/)[0] ?? '')
    .filter(Boolean);
}
