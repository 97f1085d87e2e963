import type { Notebook } from './observe.js';
import { own } from './own.js';
import { findSlot } from './slots.js';

/** So many insertions are followed. */
export const MOST = 50_000;
const LONGEST_VALUE = 60;

/** Notes what stands in a slot, and in a shadow root of it, before anything can have changed it. */
export function noteLate(slot: string): void {
  const notebook = globalThis.mivketNotebook;
  const { page, late, childrenOf } = notebook;
  const place = findSlot(page, slot);
  const noted: Notebook['order'] = [];
  const waiting = (place ? childrenOf(place) : []).map((node) => ({ node, parent: place as Node }));
  waiting.reverse();
  for (let next = waiting.pop(); next && noted.length < MOST; next = waiting.pop()) {
    const { node, parent } = next;
    noted.push({ node, parent, signature: sign(node) });
    waiting.push(
      ...[...own(node).children].reverse().map((child) => ({ node: child, parent: node })),
    );
  }
  late.set(slot, noted);
}

/** An element as it stood in the source. */
export function sign(node: Element): string {
  const { localName, attributes } = own(node);
  const keptOf = (value: string) => value.slice(0, LONGEST_VALUE);
  return localName + Array.from(attributes, (a) => `|${a.name}=${keptOf(a.value)}`).join('');
}
