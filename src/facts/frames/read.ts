import { FRAMES } from '../../core/standards/elements.js';
import { listPlaces } from '../../render/in-page/inner.js';
import { beginScales, getScale } from '../../render/in-page/scale.js';
import { round } from '../../render/in-page/shared.js';
import type { ObjectReader } from '../../render/in-page/object-reader.js';
import type { OfElement } from '../common.js';
import type { FrameFact } from './fact.js';

/** A frame as the page shows it; `index`: its place among the page's frames. */
export type RawFrame = Omit<FrameFact, OfElement | 'inner'> & { index: number | null };

let places = new Map<unknown, number>();

export const readFrame: ObjectReader<RawFrame> = {
  begin() {
    places = listPlaces(window);
    beginScales();
  },
  fits: (_real, node) => FRAMES.has(node.localName),
  read(_real, node, book) {
    const { page } = book;
    const written = node.getAttribute(node.localName === 'object' ? 'data' : 'src') ?? '';
    const address = URL.canParse(written, page.baseURI)
      ? new URL(written, page.baseURI).href
      : written;
    const style = getComputedStyle(node);
    const inner = (node as Partial<HTMLIFrameElement>).contentWindow ?? null;
    return {
      id: book.idOf(node),
      tag: node.localName as FrameFact['tag'],
      address,
      attributes: Object.fromEntries(Array.from(node.attributes, (a) => [a.name, a.value])),
      border:
        getInset(style.borderLeftStyle, style.borderLeftWidth) +
        getInset(style.borderRightStyle, style.borderRightWidth),
      scale: round(getScale(node, book)),
      index: places.get(inner) ?? null,
      posted: describePosts(book.posts.get(inner)),
    };
  },
};

function describePosts(heights: readonly number[] | undefined): FrameFact['posted'] {
  const [first, last] = [heights?.[0], heights?.at(-1)];
  if (!heights || first === undefined || last === undefined) return null;
  let highest = 0;
  const rises = heights.filter((height) => {
    const rise = height > highest;
    highest = Math.max(highest, height);
    return rise;
  });
  return { count: heights.length, first, last, rises: rises.length };
}

function getInset(kind: string, width: string): number {
  return kind === 'inset' ? parseFloat(width) : 0;
}
