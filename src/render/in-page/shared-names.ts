import { flatMap } from '../../core/lists.js';
import { fits } from './host-rules.js';
import { listParents } from './shared.js';

/**
 * A class or id of a selector, `.card`, that the snippet's own elements carry where the selector fits: on the element
 * itself or on one around it; null where it fits by names of elements, or of the page's own elements.
 */
export function findSharedName(
  element: Element,
  selectors: string,
  own: ReadonlySet<Element>,
): string | null {
  const names = flatMap(splitSelectors(selectors), (selector) =>
    fits(element, selector) ? listNames(selector) : [],
  );
  if (names.length === 0) return null;
  const carriers = [...listParents(element)].filter((one) => own.has(one));
  return names.find((name) => carriers.some((one) => fits(one, name))) ?? null;
}

/** The selectors of a list (Selectors 4, 4.1). */
export function splitSelectors(list: string): string[] {
  const parts = [''];
  let depth = 0;
  for (const [token] of list.matchAll(/\\.|"[^"]*"|'[^']*'|[^]/g)) {
    if ('(['.includes(token)) depth++;
    if (')]'.includes(token)) depth--;
    if (token === ',' && depth === 0) parts.push('');
    else parts[parts.length - 1] += token;
  }
  return parts;
}

/** Its classes and ids; not those of what it must not be, nor what stands in an attribute's value. */
function listNames(selector: string): string[] {
  const bare = selector.replace(/\[[^\]]*\]|:not\([^)]*\)/g, '');
  return bare.match(/[.#](?:\\.|[\w-]|[^\0-\x7f])+/g) ?? [];
}
