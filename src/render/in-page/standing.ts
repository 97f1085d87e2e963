import type { Box } from '../../core/evidence.js';
import { toPageBox, walk } from './shared.js';

/** A document, or what is in a shadow root, as it stands now. */
export interface StoodTree {
  /** As HTML. */
  text: string;
  /** Its elements in the order of the tree: their names, and where they are on the page; null where they are nowhere. */
  elements: [name: string, box: Box | null][];
}

/** More of a page is not told, characters. */
const MOST = 4e6;

/** The page as it stands now: its document, and behind that what is in each of its shadow roots. */
export function readStanding(): StoodTree[] {
  const { page } = globalThis.mivketNotebook;
  const all = [toStoodTree(page.documentElement.outerHTML, page)];
  for (const { shadowRoot } of walk([page.documentElement]))
    if (shadowRoot) all.push(toStoodTree(shadowRoot.innerHTML, shadowRoot));
  let left = MOST;
  return all.filter(({ text }) => (left -= text.length) >= 0);
}

function toStoodTree(text: string, root: ParentNode): StoodTree {
  const elements = [...root.querySelectorAll('*')].map((real): [string, Box | null] => {
    const isThere = real.getClientRects().length > 0;
    return [real.localName, isThere ? toPageBox(real.getBoundingClientRect()) : null];
  });
  return { text, elements };
}
