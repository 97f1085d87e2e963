import type { Asked } from '../../facts/visit/fact.js';
import { SLOT_ATTRIBUTE } from '../../core/host/slot-attribute.js';
import { mapPresent } from '../../core/lists.js';
import { leaveFocus, listTabbable } from './focus.js';
import { isFollowed } from './links.js';
import { listOwnTexts } from './ink.js';
import { getBottom, nextFrame, walk } from './shared.js';
import { scrollBack } from './swipes.js';

/** Where the mouse or a finger is put on the page around, px of the window, and how far the page can be scrolled, px. */
export interface OwnPlace {
  x: number;
  y: number;
  /** How far it is scrolled, and how much further down it goes. */
  above: number;
  below: number;
  /** The controls of the page's own that can have the focus. */
  controls: number;
}

const SLOT = `[${SLOT_ATTRIBUTE}]`;
/** What does something of its own with a click or a key. */
const ACTIVE = 'a, button, input, select, textarea, label, summary, iframe, [onclick], [tabindex]';
const FIELDS = 'input:not([type=hidden]):not([type=checkbox]):not([type=radio]), textarea';
const MOST = 2000;

/** Of the page's own words, some that are in view and free; in the middle of the window where none are. */
export async function findOwnPlace(): Promise<OwnPlace> {
  leaveFocus();
  scrollBack();
  await nextFrame();
  const at = mapPresent(listWorded(), findPoint)[0] ?? [innerWidth / 2, innerHeight / 2];
  const above = Math.round(scrollY);
  return {
    x: at[0],
    y: at[1],
    above,
    below: getBottom() - above - innerHeight,
    controls: listControls().length,
  };
}

/** Puts the focus on the first control of the page's own. Resolves to its number. */
export function focusFirst(): number {
  const [first] = listControls();
  first?.focus({ preventScroll: true });
  return globalThis.mivketNotebook.idOf(first ?? document.documentElement);
}

/** Whether the focus is elsewhere, two frames later. */
export async function hasLeft(id: number): Promise<boolean> {
  await nextFrame();
  await nextFrame();
  const { activeElement } = globalThis.mivketNotebook.page;
  return activeElement === null || globalThis.mivketNotebook.idOf(activeElement) !== id;
}

/** What of the page's own is prevented. What listens is asked by events as a visitor would cause them. */
export function listHindered(): Asked[] {
  const { page } = globalThis.mivketNotebook;
  const [words] = listWorded();
  const field = [...page.querySelectorAll(FIELDS)].find(isOwn);
  const is: Record<Asked, boolean> = {
    select: words !== undefined && isUnselectable(words),
    copy: words !== undefined && isCopyKept(words),
    paste: field !== undefined && isPrevented(field, new ClipboardEvent('paste', CANCELABLE)),
    menu: words !== undefined && isPrevented(words, new MouseEvent('contextmenu', CANCELABLE)),
    find: isPrevented(page.body ?? page.documentElement, new KeyboardEvent('keydown', CTRL_F)),
    leave: asksOnLeaving(),
  };
  return (Object.keys(is) as Asked[]).filter((act) => is[act]);
}

const CANCELABLE = { bubbles: true, cancelable: true, composed: true };
const CTRL_F = { ...CANCELABLE, key: 'f', code: 'KeyF', keyCode: 70, ctrlKey: true };

function isUnselectable(words: Element): boolean {
  const { userSelect } = getComputedStyle(words);
  return userSelect === 'none' || isPrevented(words, new Event('selectstart', CANCELABLE));
}

/** Code that puts other words in the place of those that are copied does not keep them back. */
function isCopyKept(words: Element): boolean {
  const clipboardData = new DataTransfer();
  const event = new ClipboardEvent('copy', { ...CANCELABLE, clipboardData });
  return isPrevented(words, event) && clipboardData.types.length === 0;
}

function isPrevented(target: Element, event: Event): boolean {
  target.dispatchEvent(event);
  return event.defaultPrevented;
}

/** HTML, 7.5.4: a browser asks where the event is canceled, or given words to ask with. */
function asksOnLeaving(): boolean {
  const event = document.createEvent('BeforeUnloadEvent');
  event.initEvent('beforeunload', false, true);
  window.dispatchEvent(event);
  return event.defaultPrevented || (event as BeforeUnloadEvent).returnValue !== '';
}

/** A click on a link of the page's own, and whether code kept the browser from following it. */
export interface ClickedOwn {
  href: string;
  kept: boolean;
}

/** Clicks the first link of the page's own that leads to another page; null where there is none. */
export function clickOwnLink(): ClickedOwn | null {
  const links = globalThis.mivketNotebook.page.querySelectorAll<HTMLAnchorElement>('a[href]');
  const link = [...links].find((one) => isOwn(one) && /^https?:/.test(one.href) && !one.hash);
  return link ? { href: link.href, kept: !isFollowed(link) } : null;
}

/** What is stored for the tab alone is gone with it. */
export function forgetTab(): void {
  try {
    sessionStorage.clear();
  } catch {
    // A page without an origin of its own stores nothing.
  }
}

function isOwn(real: Element): boolean {
  const node = globalThis.mivketNotebook.own(real);
  const isSeen = node.checkVisibility({ opacityProperty: true, visibilityProperty: true });
  return isSeen && node.closest(SLOT) === null && node.querySelector(SLOT) === null;
}

/** Elements of the page's own with words in them, and nothing to be done with. */
function listWorded(): Element[] {
  const { page, own } = globalThis.mivketNotebook;
  const found: Element[] = [];
  let count = 0;
  for (const node of walk([page.body ?? page.documentElement])) {
    if (++count > MOST || found.length >= 40) break;
    if (listOwnTexts(node).length === 0 || !isOwn(node)) continue;
    if (!own(node).closest(`${ACTIVE}, script, style`)) found.push(node);
  }
  return found;
}

function findPoint(node: Element): [number, number] | null {
  const { left, top, width, height } = node.getBoundingClientRect();
  const [x, y] = [left + width / 2, top + height / 2];
  const hit = document.elementFromPoint(x, y);
  return hit !== null && (hit === node || node.contains(hit)) ? [x, y] : null;
}

function listControls(): HTMLElement[] {
  const all = listTabbable(globalThis.mivketNotebook.page);
  return all.filter((one) => !one.matches(':disabled') && isOwn(one));
}
