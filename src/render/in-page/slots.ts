import { SLOT_ATTRIBUTE } from '../../core/host/slot-attribute.js';

/** The element around a snippet, by the slot's name. */
export function findSlot(page: ParentNode, name: string): HTMLElement | null {
  return page.querySelector<HTMLElement>(`[${SLOT_ATTRIBUTE}="${CSS.escape(name)}"]`);
}

/** The slot that an element of the page stands in. */
export function findSlotAround(element: Element): Element | null {
  return element.closest(`[${SLOT_ATTRIBUTE}]`);
}

/** What is around an element, inside of its slot, across shadow roots; the nearest first. */
export function* listAroundInSlot(element: Element): Generator<Element> {
  const { parentOf, own } = globalThis.mivketNotebook;
  for (let at = parentOf(element); at && !own(at).hasAttribute(SLOT_ATTRIBUTE); at = parentOf(at))
    yield at;
}
