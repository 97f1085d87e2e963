import { is, type Options } from 'css-select';
import { getText, getValue, type MarkupElement } from './markup.js';

/** Lets the selector engine walk our elements. */
const adapter: NonNullable<Options<MarkupElement, MarkupElement>['adapter']> = {
  isTag: (_node): _node is MarkupElement => true,
  getAttributeValue: (element, name) => getValue(element, name) ?? undefined,
  getChildren: (element) => element.children,
  getName: (element) => element.name,
  getParent: (element) => element.parent,
  getSiblings: (element) => element.parent?.children ?? [element],
  getText,
  hasAttrib: (element, name) => getValue(element, name) !== null,
  removeSubsets: (elements) => elements,
};

/** Whether an element matches a selector list; what the engine cannot read matches nothing. */
export function matchesSelector(element: MarkupElement, selector: string): boolean {
  try {
    return is(element, selector, { adapter, cacheResults: false });
  } catch {
    return false;
  }
}
