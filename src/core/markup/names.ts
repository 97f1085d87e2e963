import { computeName, type NameTree } from '../standards/accessible-name.js';
import type { Described } from '../standards/elements.js';
import { getValue, listFieldLabels, type Markup, type MarkupElement } from './markup.js';

/** The name that an element of the markup has; what is outside of the snippet is not known. */
export function getMarkupName(markup: Markup, element: MarkupElement): string | null {
  return computeName(makeTree(markup), element);
}

function makeTree(markup: Markup): NameTree<MarkupElement> {
  return {
    getName: ({ name }) => name,
    getAttribute: getValue,
    findById: (_node, id) => markup.elements.find((one) => getValue(one, 'id') === id) ?? null,
    listFieldLabels: (field) => listFieldLabels(markup, field),
    listContent: ({ text, children }) => [text, ...children],
  };
}

/** An element of the markup, as the facts of the standards look at it. */
export function describeElement(element: MarkupElement): Described {
  return { name: element.name, get: (attribute) => getValue(element, attribute) };
}
