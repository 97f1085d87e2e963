import { SLOT_ATTRIBUTE } from '../../core/host/slot-attribute.js';
import { listParents, nextFrame } from './shared.js';
import { findSlot } from './slots.js';

const TABBABLE =
  'a[href], area[href], button, input, select, textarea, summary, iframe, object, embed, audio[controls], video[controls], [tabindex], [contenteditable]';

/** Where the focus is: the number of the element; null for none but the page itself. */
export interface Focus {
  id: number | null;
  /** It is in one of these elements, or in the slot. */
  inside: boolean;
}

let before: { place: HTMLElement; tabindex: string | null } | null = null;

/**
 * Puts the focus where the keyboard comes into a slot, or on the last that can have it in there.
 * @returns how many can have it
 */
export function enterSlot(slot: string, last: boolean): number {
  const { page } = globalThis.mivketNotebook;
  const place = findSlot(page, slot);
  if (!place) return 0;
  const all = listTabbable(place);
  const target = last ? (all.at(-1) ?? place) : place;
  if (target === place) {
    before = { place, tabindex: place.getAttribute('tabindex') };
    place.tabIndex = -1;
  }
  target.focus({ preventScroll: true });
  return all.length;
}

/** Those that Tab goes to. */
export function listTabbable(root: ParentNode): HTMLElement[] {
  return Array.from(root.querySelectorAll<HTMLElement>(TABBABLE)).filter(
    (one) => one.tabIndex >= 0 && one.checkVisibility({ visibilityProperty: true }),
  );
}

/** Takes the focus away from where it is. */
export function leaveFocus(): void {
  const { activeElement } = globalThis.mivketNotebook.page;
  (activeElement as Partial<HTMLElement> | null)?.blur?.();
}

/** Takes the focus away again, and all that was done for it. */
export function leaveSlot(): void {
  leaveFocus();
  if (!before) return;
  const { place, tabindex } = before;
  if (tabindex === null) place.removeAttribute('tabindex');
  else place.setAttribute('tabindex', tabindex);
  before = null;
}

/** @param own the numbers of the snippet's elements */
export function readFocus(slot: string, own: readonly number[]): Focus {
  const { page, idOf } = globalThis.mivketNotebook;
  const { activeElement, body, documentElement } = page;
  if (!activeElement || activeElement === body || activeElement === documentElement)
    return { id: null, inside: false };
  const ids = new Set(own);
  for (const node of listParents(activeElement))
    if (ids.has(idOf(node)) || node.getAttribute(SLOT_ATTRIBUTE) === slot)
      return { id: idOf(activeElement), inside: true };
  return { id: idOf(activeElement), inside: false };
}

/** The same, a moment later. */
export async function readFocusLater(slot: string, own: readonly number[]): Promise<Focus> {
  await nextFrame();
  await nextFrame();
  return readFocus(slot, own);
}
