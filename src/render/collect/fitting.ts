import type { HostPartFact } from '../../core/evidence.js';
import { listSelectors } from '../../core/markup/reaching.js';
import type { Markup } from '../../core/markup/markup.js';
import type { BrowserPage } from '../page/browser-page.js';
import type { Parted } from './own.js';

/** Says of the page's changed parts which of the snippet's selectors they fit. @throws Error where the page does not answer */
export async function addFitting(
  page: Pick<BrowserPage, 'read'>,
  host: readonly HostPartFact[],
  parts: Parted['parts'],
  markup: Markup | undefined,
): Promise<HostPartFact[]> {
  // Mostly nothing has changed: then no sheet need be parsed for it.
  const selectors = markup && host.length > 0 ? listSelectors(markup) : [];
  if (selectors.length === 0) return [...host];
  const ids = host.map(({ offset }) => parts.get(offset)?.node ?? -1);
  const fitting = await page.read(
    'fitSelectors',
    ids,
    selectors.map(({ text }) => text),
  );
  return host.map((part, i) => ({
    ...part,
    fits: fitting[i]!.map((at) => selectors[at]!.span.offset),
  }));
}
