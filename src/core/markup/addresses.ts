import { flatMap } from '../lists.js';
import { getValue, type Markup, type MarkupAttribute, type MarkupElement } from './markup.js';
import { parseAddress } from '../measure/site.js';

/** An address as written from which a browser loads something by itself: no links. */
export interface WrittenAddress {
  text: string;
  element: MarkupElement;
  attribute: MarkupAttribute;
}

/** The same as a URL. */
export interface MarkupAddress extends Omit<WrittenAddress, 'text'> {
  url: URL;
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
  return flatMap(listWritten(markup), ({ text, element, attribute }) => {
    const url = parseAddress(text, base);
    return url ? [{ url, element, attribute }] : [];
  });
}

const written = new WeakMap<Markup, WrittenAddress[]>();

/** All addresses that the snippet's markup loads from, as they are written. */
export function listWritten(markup: Markup): WrittenAddress[] {
  const known = written.get(markup);
  if (known) return known;
  const found: WrittenAddress[] = [];
  for (const element of markup.elements)
    for (const attribute of element.attributes)
      for (const text of getLoaded(element, attribute)) found.push({ text, element, attribute });
  written.set(markup, found);
  return found;
}

const NONE: string[] = [];

function getLoaded(element: MarkupElement, { name, value }: MarkupAttribute): string[] {
  if (LOADING[name]?.includes(element.name)) return [value.trim()].filter(Boolean);
  if (name === 'srcset' || name === 'imagesrcset') return splitSrcset(value.trim());
  if (name !== 'href') return NONE;
  const isLoad =
    element.name === 'link'
      ? LOADING_LINKS.test(getValue(element, 'rel') ?? '')
      : /^(image|use|feImage)$/.test(element.name);
  return isLoad ? [value.trim()].filter(Boolean) : NONE;
}

/** The addresses of a srcset (HTML, "parse a srcset attribute"). */
function splitSrcset(text: string): string[] {
  return text
    .split(/,\s+|,$/)
    .map((candidate) => candidate.trim().split(/\s+/)[0] ?? '')
    .filter(Boolean);
}
