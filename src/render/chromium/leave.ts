import type { Happenings } from '../page/happenings.js';
import type { Preparation } from '../page/browser-page.js';
import { within } from '../bounds/limit.js';
import type { Session } from './connection.js';

/** How long it may take to get rid of a page, ms. */
export const BLANK_LIMIT = 3000;

/** Ways out of the page that stands there. */
export interface WaysOut {
  /** Takes all away that is in it. */
  clearAway(): Promise<unknown>;
  goBlank(): Promise<void>;
}

/** Makes the next load a visitor's first: nothing is stored, the window has no name and no past. */
export async function leaveBehind(
  session: Session,
  { before, cold, glides }: Pick<Preparation, 'before' | 'cold'> & Pick<Happenings, 'glides'>,
  { clearAway, goBlank }: WaysOut,
): Promise<void> {
  // A page that has code in frames only is rid of it without them, and sooner so.
  const clearing = before === 'framed-code' ? clearAway().then(() => true) : Promise.resolve(false);
  const emptied = (await within(clearing, BLANK_LIMIT).catch(() => null)) ?? false;
  if (glides || (before !== 'no-code' && !emptied)) await goBlank();
  // Without code only answers can have left something: cookies.
  const storageTypes = before === 'no-code' ? 'cookies' : 'all';
  await Promise.all([
    session.send('Storage.clearDataForOrigin', { origin: '*', storageTypes }),
    ...(cold ? [session.send('Network.clearBrowserCache')] : []),
    session.send('Page.resetNavigationHistory'),
    session.hold('Emulation.setScriptExecutionDisabled', { value: false }),
  ]);
}
