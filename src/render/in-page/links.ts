import { flatMap } from '../../core/lists.js';
/** A link, and whether a click on it goes to the top of the page, or loads it anew. */
export interface ClickedLink {
  id: number;
  jumps: boolean;
}

const MOST = 100;

/** Clicks those links whose address is `#` or empty by now, and keeps the browser from following them. */
export function clickLinks(ids: readonly number[]): ClickedLink[] {
  const { nodes, own } = globalThis.mivketNotebook;
  return flatMap(ids.slice(0, MOST), (id) => {
    const link = nodes.get(id);
    const href = link && own(link).getAttribute('href');
    const leadsNowhere = typeof href === 'string' && /^\s*#?\s*$/.test(href);
    return link ? [{ id, jumps: leadsNowhere && isFollowed(link) }] : [];
  });
}

/** Whether no handler keeps the browser from following it: the last listener of all sees that, and keeps it. */
export function isFollowed(link: Element): boolean {
  let kept = false;
  let came = false;
  const last = (event: Event) => {
    came = true;
    kept = event.defaultPrevented;
    event.preventDefault();
  };
  // A handler may end the event's way before: then it is asked at the target itself.
  const click = new MouseEvent('click', { bubbles: true, cancelable: true, composed: true });
  const href = link.getAttribute('href') ?? '';
  window.addEventListener('click', last);
  try {
    const followed = link.dispatchEvent(click);
    // Not to be followed all the same.
    if (!came && followed && !href.trim().startsWith('#')) window.stop();
    return came ? !kept : followed;
  } finally {
    window.removeEventListener('click', last);
  }
}
