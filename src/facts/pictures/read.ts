import { flatMap } from '../../core/lists.js';
import { computeName, type NameTree } from '../../core/standards/accessible-name.js';
import { isDecoration, isPicture, type Described } from '../../core/standards/elements.js';
import type { Notebook } from '../../render/in-page/observe.js';
import type { ObjectReader } from '../../render/in-page/objects.js';
import type { OfElement } from '../common.js';
import type { PictureFact } from './fact.js';

export type RawPicture = Omit<PictureFact, OfElement>;

export const readPicture: ObjectReader<RawPicture> = {
  fits: (_real, node) => isPicture(describe(node)),
  read(real, node, book) {
    return {
      id: book.idOf(real),
      tag: node.localName,
      ignored: isIgnored(real, book),
      loaded: !(real instanceof HTMLImageElement) || (real.complete && real.naturalWidth > 0),
      address: real instanceof HTMLImageElement ? real.currentSrc : '',
      name: computeName(makeTree(book), node),
    };
  },
};

function describe(node: Element): Described {
  return { name: node.localName, get: (attribute) => node.getAttribute(attribute) };
}

function makeTree({ own }: Notebook): NameTree<Element> {
  return {
    getName: (node) => own(node).localName,
    getAttribute: (node, name) => own(node).getAttribute(name),
    findById(node, id) {
      const scope = node.getRootNode() as Document | ShadowRoot;
      const found: unknown = scope.getElementById?.(id);
      return found instanceof Element ? found : null;
    },
    listFieldLabels: (node) => (node instanceof HTMLInputElement ? [...(node.labels ?? [])] : []),
    listContent: (node) =>
      flatMap(Array.from(own(node).childNodes), (child): (string | Element)[] => {
        if (child.nodeType === Node.TEXT_NODE) return [child.nodeValue ?? ''];
        return child instanceof Element ? [child] : [];
      }),
  };
}

/** Hidden from assistive technology by its markup, or marked as decoration. */
function isIgnored(node: Element, { own, parentOf }: Notebook): boolean {
  if (isDecoration(describe(own(node)))) return true;
  for (let at: Element | null = node; at; at = parentOf(at)) {
    if (own(at).getAttribute('aria-hidden') === 'true' || own(at).hasAttribute('inert'))
      return true;
  }
  return false;
}
