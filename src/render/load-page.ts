import { within } from './bounds/limit.js';
import type { BrowserPage } from './page/browser-page.js';
import type { Sources } from './page/served-page.js';
import type { Setting } from './setting.js';

/** Goes there, and puts in what comes late. */
export async function loadPage(
  page: BrowserPage,
  { address }: Pick<Sources, 'address'>,
  { reach, limits }: Pick<Setting, 'reach' | 'limits'>,
): Promise<true | null> {
  const loaded = await whenOnlySilent(page, page.load(address, limits.load));
  for (const { slot, text, how, scripts } of reach.served.late)
    await page.putIn({ slot, text, how, scripts });
  return loaded;
}

/** How often it is looked whether a load waits for nothing but a host that does not answer, and for how long it must, ms. */
const [LOOKED, SINCE] = [100, 600];

/** What a load gives; where it waits for nothing but a host that is made silent, as much as there would be for good. */
async function whenOnlySilent(page: BrowserPage, load: Promise<true | null>): Promise<true | null> {
  const { requests } = page;
  if (!requests.isDrilled) return load;
  const loading = load.then((loaded) => ({ loaded }));
  for (;;) {
    const done = await within(loading, LOOKED);
    if (done) return done.loaded;
    const stands = performance.now() - requests.lastActivity >= SINCE;
    if (requests.asksSilent && requests.pending === 0 && stands) page.endLoad();
  }
}
