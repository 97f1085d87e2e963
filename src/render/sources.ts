import { getHostPage, makeFrameDocument, type HostPage } from '../core/host/host-page.js';
import type { House } from '../core/house/house.js';
import { admitStyle } from '../core/measure/csp.js';
import type { Render } from '../core/render.js';
import type { Published } from '../core/snippet.js';
import type { Late, Sources } from './page/served-page.js';

/** What decides what pages are made from. */
export interface Making {
  house: House;
  /** The text of the house's own page; null for the neutral one. */
  ownPage: string | null;
  /** A page that is published, which a snippet's text is the whole of; null or left out: snippets stand in slots. */
  published?: Published | null;
}

/** The page around a render's slots. @throws Error where it has no room for them */
export function getHost(
  { house, ownPage, published }: Making,
  { snippets, insert }: Render,
): HostPage {
  const names = snippets.map(({ slot }) => slot);
  if (published) return { pieces: ['', ''], css: null, slots: names };
  if (insert === 'frame') return makeFrameDocument(names);
  const slots = house.slots.filter(({ name }) => names.includes(name));
  const host = slots.length === names.length ? getHostPage(slots, ownPage) : null;
  if (!host) throw new Error(`the host page has no room for ${names.join(' and ')}`);
  return host;
}

/** What a page is made from: snippets stand in its source, or are put in when it has loaded. */
export function getSources(making: Making, render: Render, texts: readonly string[]): Sources {
  const { house, published } = making;
  const { insert } = render;
  const host = getHost(making, render);
  const headers = host.css === null ? house.headers : admitStyle(house.headers, host.css);
  const placed = texts.map((text, i) => ({ text, slot: render.snippets[i]!.slot }));
  const isLate = insert === 'late' || insert === 'shadow';
  const late = placed.map((one, snippet): Late => ({
    ...one,
    snippet,
    how: insert === 'shadow' ? 'shadow' : 'late',
    scripts: insert === 'shadow' || house.lateScripts,
  }));
  return {
    host,
    snippets: isLate ? placed.map((one) => ({ ...one, text: '' })) : placed,
    late: isLate ? late : [],
    address: published ? published.address : new URL('/', house.origin).href,
    headers: published ? published.headers : headers,
    published: Boolean(published),
  };
}
