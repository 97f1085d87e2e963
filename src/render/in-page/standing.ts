import { walk } from './shared.js';

/** More of a page is not told, characters. */
const MOST = 4e6;

/** The page as it stands now, as HTML: its document, and behind that what is in each of its shadow roots. */
export function readStanding(): string[] {
  const { page } = globalThis.mivketNotebook;
  const texts = [page.documentElement.outerHTML];
  for (const { shadowRoot } of walk([page.documentElement]))
    if (shadowRoot) texts.push(shadowRoot.innerHTML);
  let left = MOST;
  return texts.filter(({ length }) => (left -= length) >= 0);
}
