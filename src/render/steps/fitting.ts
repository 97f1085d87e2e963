import type { HostPartFact } from '../../core/evidence.js';
import { listSelectors, type Selecting } from '../../core/markup/reaching.js';
import type { Markup } from '../../core/markup/markup.js';
import type { BrowserPage } from '../page/browser-page.js';
import { pickPart, type Parted } from '../collect/own.js';
import { defineStep } from './step.js';

/** Which of the snippet's rules reach the page around: of a page of the house's own also those that change nothing. */
export const fittingStep = defineStep({
  name: 'fitting',
  phase: 'asked of the browser',
  kind: 'host',
  isDue: ({ markup }) => markup !== null,
  take: ({ page, facts, parted, markup, setting }) =>
    addFitting(page, facts.host, parted.parts, { markup: markup!, every: setting.around.ownPage }),
  tells: (_facts, host) => ({ host }),
});

type Reads = Pick<BrowserPage, 'read'>;

/**
 * Says of the page's changed parts which of the snippet's selectors they fit.
 * @param every also of parts that look as they did, which are told too then
 * @throws Error where the page does not answer
 */
async function addFitting(
  page: Reads,
  host: readonly HostPartFact[],
  parts: Parted['parts'],
  { markup, every }: { markup: Markup; every: boolean },
): Promise<HostPartFact[]> {
  // Mostly nothing has changed: then no sheet need be parsed for it.
  const selectors = every || host.length > 0 ? listSelectors(markup) : [];
  if (selectors.length === 0) return [...host];
  const ids = host.map(({ offset }) => parts.get(offset)?.node ?? -1);
  const fitting = await page.read(
    'fitSelectors',
    ids,
    selectors.map(({ text }) => text),
  );
  const changed = host.map((part, i) => ({
    ...part,
    fits: fitting[i]!.map((at) => selectors[at]!.span.offset),
  }));
  return every ? [...changed, ...(await findUnchanged(page, changed, parts, selectors))] : changed;
}

/** Parts of the page that selectors of the snippet fit and that look as they did. */
async function findUnchanged(
  page: Reads,
  changed: readonly HostPartFact[],
  parts: Parted['parts'],
  selectors: readonly Selecting[],
): Promise<HostPartFact[]> {
  const known = new Set(changed.map(({ offset }) => offset));
  const offsets = new Map([...parts].map(([offset, { node }]) => [node, offset]));
  const texts = selectors.map(({ text }) => text);
  const found = new Map<number, number[]>();
  for (const { id, at } of await page.read('fitOutside', texts)) {
    const offset = offsets.get(id);
    if (offset === undefined || known.has(offset)) continue;
    found.set(offset, [...(found.get(offset) ?? []), selectors[at]!.span.offset]);
  }
  return [...found].map(([offset, fits]): HostPartFact => {
    const { tag, words, ...part } = parts.get(offset)!;
    const look = pickPart(part);
    return { offset, tag, words, fits, displaced: false, without: look, with: look };
  });
}
