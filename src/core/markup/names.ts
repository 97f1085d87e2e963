import { computeControlName, computeName, type NameTree } from '../standards/accessible-name.js';
import type { Control, Described } from '../standards/elements.js';
import { isHidden } from './hidden.js';
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
    isHidden: (element) => isHidden(markup, element),
  };
}

/** The name of a control of the markup; '' where nothing in the snippet gives it one. */
export function getMarkupControlName(
  markup: Markup,
  element: MarkupElement,
  control: Pick<Control, 'byContent'>,
): string {
  return computeControlName(makeTree(markup), element, control);
}

/** An element of the markup, as the facts of the standards look at it. */
export function describeElement(element: MarkupElement): Described {
  return { name: element.name, get: (attribute) => getValue(element, attribute) };
}
