import { patiently } from './bounds/patience.js';
import type { Glance } from './in-page/glance.js';
import type { BrowserPage } from './page/browser-page.js';

/** How long it may take to look at it, ms. */
const LOOKED = 2000;

/** A page, its frames, and what its code has done so far, at a glance. */
export interface Glimpse extends Glance {
  /** What of `plain` stays as it is when something is found out about the page: no frames, nothing asked for. */
  lasting: string;
}

/** What a visitor would notice at a glance; null where it does not answer. */
export async function glimpse(page: BrowserPage): Promise<Glimpse | null> {
  const looking = Promise.all([page.read('glance'), page.readFrames('glanceInside', LOOKED)]);
  const seen = await patiently(looking, LOOKED).catch(() => null);
  if (seen === null) return null;
  const [glance, framed] = seen;
  const { dialogs, windows, navigations, downloads, errors, pleas } = page.happened;
  const told = [dialogs, windows, navigations, downloads, errors, pleas].map((all) => all.length);
  const lasting = `${told.join()} ${glance.plain}`;
  const inside = framed.map(({ answer }) => answer).sort();
  const plain = `${page.requests.requests.length} ${inside.join()} ${lasting}`;
  return { ...glance, plain, lasting };
}
