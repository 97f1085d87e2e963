import type { PolicyFact } from '../evidence.js';
import { getElementFrom, getValue, type Markup, type MarkupElement } from '../markup/markup.js';
import { getSourceOffset } from './blame.js';
import { hashCode } from './csp.js';
import { parseAddress } from './site.js';

/** What a policy refused, in words, and the source that would let it in (CSP 3, 2.3.1). */
export interface PolicyRefusal {
  what: string;
  source: string;
}

const LOADS: Record<string, string> = {
  'script-src-elem': 'the script',
  'style-src-elem': 'the style sheet',
  'img-src': 'the picture',
  'media-src': 'the film or sound',
  'font-src': 'the font',
  'frame-src': 'the frame',
  'connect-src': 'what its script asks for',
  'object-src': 'the embedded object',
  'worker-src': 'the worker',
  'form-action': 'where the form is sent',
  'manifest-src': 'the manifest',
};

const INLINE: Record<string, string> = {
  'script-src-elem': 'a script in the page',
  'script-src-attr': 'code in an attribute, such as onclick',
  'style-src-elem': 'a <style> in the page',
  'style-src-attr': 'a style attribute',
};

/** Describes a refusal that the browser told of. */
export function describeRefusal(
  markup: Markup,
  { directive, blocked, from }: PolicyFact,
): PolicyRefusal {
  if (/^(wasm-)?eval$/.test(blocked))
    return { what: 'code made from text (eval)', source: `'unsafe-${blocked}'` };
  const url = parseAddress(blocked);
  if (url) {
    const source = /^https?:$/.test(url.protocol) ? url.origin : url.protocol;
    return {
      what: `${LOADS[directive] ?? 'what is asked of'} ${url.host || url.protocol}`,
      source,
    };
  }
  const offset = getSourceOffset(from);
  const element = offset === null ? null : getElementFrom(markup, offset);
  return {
    what: INLINE[directive] ?? `what needs ${directive}`,
    source: (element && getHash(directive, element)) ?? "'unsafe-inline'",
  };
}

/** By its hash alone that piece is let in, and no other. */
function getHash(directive: string, element: MarkupElement): string | null {
  if (/-elem$/.test(directive)) return hashCode(element.text);
  const style = directive === 'style-src-attr' ? getValue(element, 'style') : null;
  return style === null ? null : `'unsafe-hashes' ${hashCode(style)}`;
}
