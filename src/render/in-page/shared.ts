import type { Box } from '../../core/evidence.js';
import { squeeze } from '../../core/words/squeeze.js';

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

const SAMPLE = 40;

/** How a text begins, on one line. */
export function getSample(text: string): string {
  return squeeze(text).slice(0, SAMPLE);
}

/** Elements with all that is in them, shadow roots too, in the order of the tree. */
export function* walk(roots: readonly Element[]): Generator<Element> {
  const waiting = [...roots].reverse();
  for (let real = waiting.pop(); real; real = waiting.pop()) {
    yield real;
    waiting.push(...globalThis.mivketNotebook.childrenOf(real).reverse());
  }
}

/** An element and those around it, shadow roots too, as far as another. */
export function* listParents(real: Element, last: Element | null = null): Generator<Element> {
  for (let node: Element | null = real; node; node = globalThis.mivketNotebook.parentOf(node)) {
    yield node;
    if (node === last) return;
  }
}

/**
 * Asks of an element, and of those around it, whether something holds of one: of those around what stands in one
 * place each is asked once.
 * @param last beyond which nobody is asked, nor that itself; left out: there is none
 */
export function makeInherited(
  holds: (node: Element) => boolean,
  last: () => Element | null = () => null,
): (real: Element) => boolean {
  const known = new Map<Element, boolean>();
  return (real) => {
    const [way, end]: [Element[], Element | null] = [[], last()];
    let found = false;
    for (const node of listParents(real)) {
      if (node === end) break;
      const told = known.get(node);
      if (told === undefined) way.push(node);
      found = told ?? holds(node);
      if (found || told !== undefined) break;
    }
    for (const node of way) known.set(node, found);
    return found;
  };
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

/** How far down there is anything, px, also where the page is fixed in its place. */
export function getBottom(): number {
  const { documentElement, body } = globalThis.mivketNotebook.page;
  const all = [documentElement, ...(body ? [body] : [])];
  return Math.max(...all.map((one) => Math.max(one.scrollHeight, one.offsetHeight)));
}
