import { SLOT_ATTRIBUTE } from '../../core/host/slot-attribute.js';

/** The element around a snippet, by the slot's name. */
export function findSlot(page: ParentNode, name: string): HTMLElement | null {
  return page.querySelector<HTMLElement>(`[${SLOT_ATTRIBUTE}="${CSS.escape(name)}"]`);
}
