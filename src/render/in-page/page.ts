import type { PageWidth, SlotFact } from '../../core/evidence.js';
import { findSlot } from './slots.js';
import { UNSEEN } from '../../core/standards/elements.js';
import { isLocked } from './clip.js';
import { listSheets } from './host-rules.js';
import { readElements, type ElementWish, type RawElement } from './elements.js';
import { getRange, listOwnTexts } from './ink.js';
import { readSettings } from './settings.js';
import { round, toPageBox } from './shared.js';
import { getEdge } from './styles.js';

export interface RawPage {
  width: PageWidth;
  direction: 'ltr' | 'rtl';
  /** The element that has the focus; null where it is the page itself. */
  focused: number | null;
  /** Dialogs that keep the rest of the page from the visitor, and popovers, that stand open. */
  opened: number[];
  /** Elements of a name of their own that nothing has defined, and that have nothing in them. */
  unmade: number[];
  /** How far it is scrolled down, px. */
  scrolled: number;
  /** What is set for the whole page. */
  settings: Record<string, string>;
  /** By what its style sheets are known. */
  sheets: string[];
  /** In the order of the wish; null for what is not on the page. */
  slots: (SlotFact | null)[];
  elements: RawElement[];
  /** How many elements there are, also those beyond the cap. */
  total: number;
  /** Something stands in a slot that can be seen. */
  shows: boolean;
  /** The box of something in a slot leaves it, to either side. */
  strays: boolean;
}

/**
 * Reads width, slots and all elements; reads only.
 * @param wish `slots`: their names. `detail`: also what text and generated boxes paint beyond an element's box.
 */
export function readPage(wish: Omit<ElementWish, 'slots'> & { slots: readonly string[] }): RawPage {
  const { page } = globalThis.mivketNotebook;
  globalThis.mivketNotebook.takeRecords();
  const nodes = wish.slots.map((name) => findSlot(page, name));
  const slots = nodes.map((node, i) => (node ? readSlot(node, wish.slots[i]!) : null));
  const { elements, total } = readElements({ ...wish, slots: nodes });
  const inSlots = elements.filter(
    ({ slot, shown, tag, box }) =>
      slot !== null && shown && !UNSEEN.has(tag) && box.width + box.height > 0,
  );
  return {
    width: readWidth(page),
    direction: getDirection(page),
    focused: getFocused(page),
    opened: wish.only ? [] : listOpened(page),
    unmade: wish.only ? [] : listUnmade(page),
    // Neither is of use for what is looked at in many windows, and the one makes the page lay itself out.
    scrolled: wish.only ? 0 : round(window.scrollY),
    settings: wish.only ? {} : readSettings(),
    sheets: wish.only ? [] : listSheets(),
    slots,
    elements,
    total,
    shows:
      slots.some((slot) => slot?.text) ||
      inSlots.some(({ box }) => box.width > 0 && box.height > 0),
    strays: inSlots.some((element) => straysFrom(element, slots[element.slot!])),
  };
}

function straysFrom({ box }: RawElement, slot: SlotFact | null | undefined): boolean {
  if (!slot) return false;
  return box.x < slot.box.x - 1 || box.x + box.width > slot.box.x + slot.box.width + 1;
}

function readSlot(real: Element, name: string): SlotFact {
  const style = getComputedStyle(real);
  const node = globalThis.mivketNotebook.own(real);
  const border = toPageBox(node.getBoundingClientRect());
  const edge = (side: string) => getEdge(style, side);
  return {
    name,
    overhang: Math.max(0, node.scrollWidth - node.clientWidth),
    text: listOwnTexts(real).some((text) => getRange(text).getBoundingClientRect().width > 0),
    family: style.fontFamily,
    pageFamily: null,
    inForm: node.closest('form') !== null,
    box: {
      x: round(border.x + edge('left')),
      y: round(border.y + edge('top')),
      width: round(border.width - edge('left') - edge('right')),
      height: round(border.height - edge('top') - edge('bottom')),
    },
  };
}

function readWidth(page: Document): PageWidth {
  const root = page.documentElement;
  const scroller = page.scrollingElement ?? root;
  return {
    scrollWidth: scroller.scrollWidth,
    clientWidth: root.clientWidth,
    scrollable: !isLocked(page, 'x'),
  };
}

function getFocused({ activeElement, body, documentElement }: Document): number | null {
  if (!activeElement || activeElement === body || activeElement === documentElement) return null;
  return globalThis.mivketNotebook.idOf(activeElement);
}

function listOpened(page: Document): number[] {
  return Array.from(page.querySelectorAll(':modal, :popover-open'), (node) =>
    globalThis.mivketNotebook.idOf(node),
  );
}

/** What has something in it shows that where nothing defines it. */
function listUnmade(page: Document): number[] {
  const { own, idOf } = globalThis.mivketNotebook;
  const all = Array.from(page.querySelectorAll(':not(:defined)'));
  return all
    .filter((one) => own(one).localName.includes('-') && !own(one).shadowRoot)
    .filter((one) => own(one).textContent?.trim() === '' && own(one).childElementCount === 0)
    .map(idOf);
}

/** A page may have no body. */
function getDirection(page: { body: Element | null; documentElement: Element }): 'ltr' | 'rtl' {
  return getComputedStyle(page.body ?? page.documentElement).direction === 'rtl' ? 'rtl' : 'ltr';
}
