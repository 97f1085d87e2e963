import { compile, type Options } from 'css-select';
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
  let matches = compiled.get(selector);
  if (!matches) {
    if (compiled.size >= MOST_KEPT) compiled.clear();
    compiled.set(selector, (matches = compileSelector(selector)));
  }
  return matches(element);
}

type Test = (element: MarkupElement) => boolean;

/** To compile a selector is dear, and the same ones are asked for every element. */
const compiled = new Map<string, Test>();
const MOST_KEPT = 5000;

function compileSelector(selector: string): Test {
  try {
    const test = compile(selector, { adapter, cacheResults: false });
    return (element) => {
      try {
        return test(element);
      } catch {
        return false;
      }
    };
  } catch {
    return () => false;
  }
}

/** Whether the engine can read a selector list. */
export function isSelector(text: string): boolean {
  try {
    compile(text, { adapter });
    return true;
  } catch {
    return false;
  }
}
