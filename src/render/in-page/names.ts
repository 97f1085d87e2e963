import { flatMap } from '../../core/lists.js';
import type { NameTree } from '../../core/standards/accessible-name.js';
import { isDecoration, type Described } from '../../core/standards/elements.js';
import type { Notebook } from './observe.js';

/** An element of the page, as the facts of the standards look at it. */
export function describe(node: Element): Described {
  return { name: node.localName, get: (attribute) => node.getAttribute(attribute) };
}

/** The page as names are computed on it. */
export function makeNameTree(book: Notebook): NameTree<Element> {
  const { own } = book;
  return {
    getName: (node) => own(node).localName,
    getAttribute: (node, name) => own(node).getAttribute(name),
    findById(node, id) {
      const scope = node.getRootNode() as Document | ShadowRoot;
      const found: unknown = scope.getElementById?.(id);
      return found instanceof Element ? found : null;
    },
    listFieldLabels: (node) => [...((node as Partial<HTMLInputElement>).labels ?? [])],
    listContent: (node) => [
      getGenerated(node, '::before'),
      ...flatMap(listNodes(node, book), (child): (string | Element)[] => {
        if (child.nodeType === Node.TEXT_NODE) return [child.nodeValue ?? ''];
        return child instanceof Element ? [child] : [];
      }),
      getGenerated(node, '::after'),
    ],
    isHidden(node) {
      if (own(node).getAttribute('aria-hidden') === 'true') return true;
      const { display, visibility } = getComputedStyle(node);
      return display === 'none' || (visibility !== 'visible' && display !== 'contents');
    },
  };
}

/** What is laid out in it: of a shadow root's host that root, of a slot what was put there. */
function listNodes(real: Element, { own, closedRoots }: Notebook): Node[] {
  const node = own(real);
  const root = node.shadowRoot ?? closedRoots.get(real);
  if (root) return Array.from(root.childNodes);
  const assigned = node instanceof HTMLSlotElement ? node.assignedNodes({ flatten: true }) : [];
  return assigned.length > 0 ? assigned : Array.from(node.childNodes);
}

/** Letters that a rule puts before or behind the content; the signs of a font for signs say nothing. */
function getGenerated(node: Element, box: string): string {
  const { content } = getComputedStyle(node, box);
  const said = /"((?:[^"\\]|\\.)*)"\s*$/.exec(content)?.[1] ?? '';
  return /[\p{L}\p{N}\p{P}\p{S}]/u.test(said) ? said : '';
}

/** Hidden from assistive technology by its markup, or marked as decoration. */
export function isIgnored(node: Element, { own, parentOf }: Notebook): boolean {
  if (isDecoration(describe(own(node)))) return true;
  for (let at: Element | null = node; at; at = parentOf(at)) {
    if (own(at).getAttribute('aria-hidden') === 'true' || own(at).hasAttribute('inert'))
      return true;
  }
  return false;
}
