import { nextFrame } from './shared.js';

/** So often it is looked at on the way down a page: once a window, or, of a page that is longer, as often. */
const MOST = 12;
/** So often at least: what moves with the scroll may be widest half the way down. */
const LEAST = 2;

/** Where a page is looked at on its way down, px from its top; none where it cannot be scrolled. */
export function listStops(): number[] {
  const { scrollHeight, clientHeight } = globalThis.mivketNotebook.page.documentElement;
  const most = scrollHeight - clientHeight;
  if (most <= 1) return [];
  const count = Math.min(Math.max(Math.ceil(most / clientHeight), LEAST), MOST);
  return Array.from({ length: count }, (_, i) => Math.round((most * (i + 1)) / count));
}

/** Scrolls to a place, and lets the page hear of it: what that sets off begins with the frame after. */
export async function scrollTo(top: number): Promise<void> {
  window.scrollTo({ top, left: 0, behavior: 'instant' });
  await nextFrame();
  await nextFrame();
}
