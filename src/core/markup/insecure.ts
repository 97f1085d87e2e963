import { flatMap, mapPresent } from '../lists.js';
import { getPrivateHostKind } from '../measure/private-address.js';
import { parseAddress } from '../measure/site.js';
import type { Span } from '../snippet.js';
import { FRAMES, MEDIA } from '../standards/elements.js';
import { listWritten } from './addresses.js';
import { getAttribute, getValue, type Markup, type MarkupElement } from './markup.js';
import { getCss } from './styles.js';

/** An address by `http:` or `ws:` from which something is loaded that is no frame's document. */
export interface Insecure {
  address: string;
  /** The attribute, or the piece of a style. */
  where: Span;
  element: MarkupElement;
  /** Where `http` stands; null where the text is written with character references. */
  scheme: Span | null;
  /** Browsers ask by `https:` instead, by themselves (Mixed Content, 4.1 Upgrade algorithm). */
  upgraded: boolean;
}

const SCHEME = /^(http|ws)(?=:)/i;

/** All of them that the snippet's text has. */
export function listInsecure(markup: Markup): Insecure[] {
  // Mostly there is none.
  if (!/http:|ws:/i.test(markup.text)) return [];
  return [...listAttributes(markup), ...listStyled(markup)];
}

function listAttributes(markup: Markup): Insecure[] {
  const loaded = listWritten(markup).filter(
    ({ text, element }) => SCHEME.test(text) && !FRAMES.has(element.name) && !isHint(element),
  );
  return mapPresent(loaded, ({ text, element, attribute }) => {
    const { offset, endOffset } = attribute;
    const at = markup.text.slice(offset, endOffset).indexOf(text);
    const start = offset + at;
    return make(text, {
      where: { offset, endOffset },
      element,
      scheme: at < 0 ? null : { offset: start, endOffset: start + text.indexOf(':') },
      upgraded: isUpgraded(element, attribute.name),
    });
  });
}

/** What only opens a connection loads nothing, and what stands in a tab is no part of the snippet. */
function isHint(element: MarkupElement): boolean {
  return (
    element.name === 'link' &&
    /^\s*(preconnect|dns-prefetch|(shortcut )?icon|apple-touch-icon)\s*$/i.test(
      getValue(element, 'rel') ?? '',
    )
  );
}

/** Pictures, films and sounds, but for pictures of which there are several sizes (Mixed Content, 3.1). */
function isUpgraded({ name, parent }: MarkupElement, attribute: string): boolean {
  if (/srcset$/.test(attribute) || name === 'script' || name === 'link' || name === 'track')
    return false;
  return name !== 'source' || (parent !== null && MEDIA.has(parent.name));
}

const URLS = /(@import\s+)?(?:url\(\s*["']?|(?<=@import\s+)["'])(http:[^)"'\s]+)/gi;

function listStyled(markup: Markup): Insecure[] {
  return flatMap(markup.elements, (element) => [
    ...(element.name === 'style' ? listIn(element, getCss(markup, element), element.tagEnd) : []),
    ...listInAttribute(markup, element),
  ]);
}

function listInAttribute(markup: Markup, element: MarkupElement): Insecure[] {
  const style = getAttribute(element, 'style');
  if (!style || !/http:/i.test(style.value)) return [];
  return listIn(element, markup.text.slice(style.offset, style.endOffset), style.offset);
}

function listIn(element: MarkupElement, css: string, base: number): Insecure[] {
  return mapPresent(css.matchAll(URLS), (match) => {
    const address = match[2]!;
    const offset = base + match.index + match[0].length - address.length;
    const before = css.slice(0, match.index);
    const inFont = before.lastIndexOf('@font-face') > before.lastIndexOf('}');
    return make(address, {
      where: { offset, endOffset: offset + address.length },
      element,
      scheme: { offset, endOffset: offset + 'http'.length },
      upgraded: match[1] === undefined && !inFont,
    });
  });
}

/** What is refused as an address of this network is told as that. */
function make(text: string, rest: Omit<Insecure, 'address'>): Insecure | null {
  const url = parseAddress(text);
  if (!url || !/^(http|ws):$/.test(url.protocol) || getPrivateHostKind(url.hostname)) return null;
  return { address: url.href, ...rest };
}
