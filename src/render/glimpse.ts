import { within } from './bounds/limit.js';
import type { Glance } from './in-page/glance.js';
import type { BrowserPage } from './page/browser-page.js';

/** How long it may take to look at it, ms, and how often it is tried: on a busy machine a page may be late that does nothing. */
const [LOOKED, TRIES] = [1500, 3];

/** What a visitor would notice at a glance; null where it does not answer. */
export async function glimpse(page: BrowserPage): Promise<Glance | null> {
  for (let tries = 0; tries < TRIES && !page.happened.left; tries++) {
    const seen = await lookOnce(page);
    if (seen) return seen;
  }
  return null;
}

async function lookOnce(page: BrowserPage): Promise<Glance | null> {
  const looking = Promise.all([page.read('glance'), page.readFrames('glanceInside', LOOKED)]);
  const seen = await within(looking, LOOKED).catch(() => null);
  if (seen === null) return null;
  const [glance, framed] = seen;
  const { dialogs, windows, navigations, downloads, errors } = page.happened;
  const { requests } = page.requests;
  const told = [dialogs, windows, navigations, downloads, errors, requests].map(
    (all) => all.length,
  );
  const inside = framed.map(({ answer }) => answer).sort();
  return { ...glance, plain: `${told.join()} ${inside.join()} ${glance.plain}` };
}
