import { flatMap } from '../../core/lists.js';
import { findSlotAround } from './slots.js';

/**
 * Which of these selectors each of these elements fits, by their places in the list.
 * @param ids -1 for what is not there
 */
export function fitSelectors(ids: readonly number[], selectors: readonly string[]): number[][] {
  const { nodes, own } = globalThis.mivketNotebook;
  return ids.map((id) => {
    const node = nodes.get(id);
    return node ? flatMap(selectors, (one, at) => (fits(own(node), one) ? [at] : [])) : [];
  });
}

/** What the browser cannot read fits nothing. */
function fits(node: Element, selector: string): boolean {
  try {
    return node.matches(selector);
  } catch {
    return false;
  }
}

/** What holds only now and then, and boxes that are no elements: the rule is for what is before it all the same. */
const AT_TIMES =
  /:(hover|active|visited|target|focus(-visible|-within)?)(?![\w-])|::[\w-]+(\([^)]*\))?|:(before|after|first-line|first-letter)(?![\w-])/gi;

/** Of each selector so many elements are told. */
const MOST = 3;

/** Elements outside of slots that fit one of these selectors, with its place in the list. */
export function fitOutside(selectors: readonly string[]): { id: number; at: number }[] {
  const { page, idOf } = globalThis.mivketNotebook;
  return flatMap(selectors, (selector, at) => {
    const outside = listFitting(page, selector).filter((one) => !findSlotAround(one));
    return outside.slice(0, MOST).map((one) => ({ id: idOf(one), at }));
  });
}

function listFitting(page: Document, selector: string): Element[] {
  try {
    return [...page.querySelectorAll(selector.replace(AT_TIMES, ''))];
  } catch {
    return [];
  }
}
