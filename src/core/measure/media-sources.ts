import type { Culprit } from '../check.js';
import type { MediaFact } from '../evidence.js';
import { mapPresent } from '../lists.js';
import {
  getAttribute,
  type Markup,
  type MarkupAttribute,
  type MarkupElement,
} from '../markup/markup.js';
import type { Span } from '../snippet.js';
import { blameElement, getBlamed } from './blame.js';
import { parseAddress } from './site.js';

/** An address that a film or a sound is to be loaded from, and where it is set. */
export interface MediaSource {
  address: string;
  where: Span;
  culprit: Culprit;
  /** What it is said to be. */
  type: MarkupAttribute | null;
}

/**
 * All addresses of a film or a sound: those that its markup names, and the one that a script gave it.
 * @param base of relative addresses: the page's
 */
export function listMediaSources(
  markup: Markup,
  medium: Pick<MediaFact, 'from' | 'selector' | 'address'>,
  base: string,
): MediaSource[] {
  const { where, culprit } = blameElement(markup, medium);
  const element = getBlamed(markup, { culprit });
  const written = element ? listWritten(element, base) : [];
  const { address } = medium;
  // What is a page's own data comes without being asked for.
  const isKnown = written.some((one) => one.address === address) || !/^https?:/.test(address);
  const type = element ? getAttribute(element, 'type') : null;
  return isKnown ? written : [...written, { address, where, culprit, type }];
}

/** An address of its own outdoes those of its sources (HTML, 4.8.11.5 Loading the media resource). */
function listWritten(element: MarkupElement, base: string): MediaSource[] {
  const own = getAttribute(element, 'src');
  const bearers = own ? [element] : element.children.filter(({ name }) => name === 'source');
  return mapPresent(bearers, (bearer) => {
    const src = getAttribute(bearer, 'src');
    const url = src && parseAddress(src.value.trim(), base);
    if (!url) return null;
    const where = { offset: src.offset, endOffset: src.endOffset };
    const culprit = { at: 'element', offset: bearer.offset } as const;
    return { address: url.href, where, culprit, type: getAttribute(bearer, 'type') };
  });
}
