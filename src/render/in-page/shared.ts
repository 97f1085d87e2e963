import type { Box } from '../../core/evidence.js';

/** To a hundredth of a px: more is noise. */
export function round(n: number): number {
  return Math.round(n * 100) / 100;
}

/** From the window's corner to the page's. */
export function toPageBox(r: DOMRect): Box {
  return {
    x: round(r.left + window.scrollX),
    y: round(r.top + window.scrollY),
    width: round(r.width),
    height: round(r.height),
  };
}

export function nextFrame(): Promise<void> {
  return new Promise((resolve) => requestAnimationFrame(() => resolve()));
}

/** Whether any of it is in the window. */
export function isInView(node: Element): boolean {
  const r = node.getBoundingClientRect();
  return (
    r.width > 0 &&
    r.height > 0 &&
    r.bottom > 0 &&
    r.right > 0 &&
    r.top < innerHeight &&
    r.left < innerWidth
  );
}
