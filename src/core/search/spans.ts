import type { WideSpan, WidthSpan } from '../evidence.js';

/** Whether two are of the same element of the source. */
export function isOneElement(
  a: Pick<WidthSpan, 'element'>,
  b: Pick<WidthSpan, 'element'>,
): boolean {
  return getElementKey(a.element) === getElementKey(b.element);
}

/** Elements of one key are the same. */
export function getElementKey(element: WidthSpan['element']): string {
  return element === null ? '' : JSON.stringify([element.from, element.selector]);
}

/** Whether a window is among those from one to another. */
export function covers({ from, to }: { from: number; to: number }, width: number): boolean {
  return width >= from && width <= to;
}

/** How wide the page is in a window without a snippet, where that is more than the window; else 0, px. */
export function getWide(wide: readonly WideSpan[], width: number): number {
  return wide.find((span) => covers(span, width))?.scrollWidth ?? 0;
}

/** What reaches beyond the window in some is too wide for its slot in a few more: that is no news. */
export function isNoNews(
  known: Pick<WidthSpan, 'for' | 'element'>,
  span: Pick<WidthSpan, 'for' | 'element'>,
): boolean {
  return isOneElement(known, span) && (known.for === span.for || span.for === 'slot');
}
