import { SLOT_ATTRIBUTE } from '../../core/host/slot-attribute.js';

/** The element around a snippet, by the slot's name. */
export function findSlot(page: ParentNode, name: string): HTMLElement | null {
  return page.querySelector<HTMLElement>(`[${SLOT_ATTRIBUTE}="${CSS.escape(name)}"]`);
}

/** The slot that an element of the page stands in. */
export function findSlotAround(element: Element): Element | null {
  return element.closest(`[${SLOT_ATTRIBUTE}]`);
}
