import { patiently } from './bounds/patience.js';
import type { Glance } from './in-page/glance.js';
import type { BrowserPage } from './page/browser-page.js';

/** How long it may take to look at it, ms. */
const LOOKED = 2000;

/** What a visitor would notice at a glance; null where it does not answer. */
export async function glimpse(page: BrowserPage): Promise<Glance | null> {
  const looking = Promise.all([page.read('glance'), page.readFrames('glanceInside', LOOKED)]);
  const seen = await patiently(looking, LOOKED).catch(() => null);
  if (seen === null) return null;
  const [glance, framed] = seen;
  const { dialogs, windows, navigations, downloads, errors, pleas } = page.happened;
  const { requests } = page.requests;
  const told = [dialogs, windows, navigations, downloads, errors, pleas, requests].map(
    (all) => all.length,
  );
  const inside = framed.map(({ answer }) => answer).sort();
  return { ...glance, plain: `${told.join()} ${inside.join()} ${glance.plain}` };
}
