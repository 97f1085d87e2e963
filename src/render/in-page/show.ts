import { mapPresent } from '../../core/lists.js';
import { SLOT_ATTRIBUTE } from '../../core/host/slot-attribute.js';
import { nextFrame, walk } from './shared.js';
import { scrollBack } from './swipes.js';

/** Brings the slot into view, where what waits to be looked at shows itself. */
export async function showSlot(selector: string): Promise<void> {
  const { page } = globalThis.mivketNotebook;
  await show(page.querySelector(selector));
}

/** Clicks what a selector finds, as code does: the page does not count as used. Resolves to whether it is there. */
export function clickOn(selector: string): boolean {
  const found = globalThis.mivketNotebook.page.querySelector<HTMLElement>(selector);
  found?.click();
  return found !== null;
}

/** Brings a medium into view, where the browser would start it. */
export async function showMedia(id: number): Promise<void> {
  await show(globalThis.mivketNotebook.nodes.get(id));
}

async function show(node: Element | null | undefined): Promise<void> {
  node?.scrollIntoView({ block: 'center', behavior: 'instant' });
  await nextFrame();
  await nextFrame();
}

/** Of a page that has no slots all is looked at. */
export function markWhole(slot: string): void {
  globalThis.mivketNotebook.page.documentElement.setAttribute(SLOT_ATTRIBUTE, slot);
}

/** Keeps the room of the scroll bar. */
export function setGutter(kept: boolean): void {
  setRule('html { scrollbar-gutter: stable !important; }', kept);
}

/** Takes all letters away, so that what is behind them is to be seen; their colour stays, which other things may have too (`currentColor`). */
export function hideLetters(hidden: boolean): void {
  const parts = [
    ...['-webkit-text-fill-color', '-webkit-text-stroke-color'],
    ...['text-decoration-color', 'text-emphasis-color', 'caret-color'],
  ];
  const clear = parts.map((part) => `${part}: transparent !important;`).join(' ');
  const drawn = 'text, tspan, textPath { fill: transparent !important; stroke: none !important; }';
  setRule(`* { ${clear} transition: none !important; } ${drawn}`, hidden, listRoots());
}

/** The document, and all shadow roots in it: no rule of the one reaches into the other. */
function listRoots(): DocumentOrShadowRoot[] {
  const { page, own, closedRoots } = globalThis.mivketNotebook;
  const roots = mapPresent(
    [...walk([page.documentElement])],
    (real) => own(real).shadowRoot ?? closedRoots.get(real),
  );
  return [document, ...roots];
}

const NO_BOX = 'html { display: none !important; }';
const NEW_FONT = '@font-face { font-family: mivket; src: local("mivket"); }';

/** Makes all boxes anew, as after a load: with the scroll bars and the letters of the window that there is now. */
export function renewBoxes(): void {
  flash(NO_BOX + NEW_FONT);
  scrollBack();
}

/**
 * Has letters measured for the density that there is now: as long as the browser has no other fonts it
 * goes by what it measured before, also on another page.
 */
export function renewLetters(): void {
  flash(NEW_FONT);
}

/** Lets a rule hold for a moment. */
function flash(rule: string): void {
  const { documentElement } = globalThis.mivketNotebook.page;
  for (const on of [true, false]) {
    setRule(rule, on);
    documentElement.getBoundingClientRect();
  }
}

const sheets = new Map<string, CSSStyleSheet>();

/** By a sheet that no page sees in its tree. */
export function setRule(
  rule: string,
  on: boolean,
  roots: readonly DocumentOrShadowRoot[] = [document],
): void {
  const sheet = sheets.get(rule) ?? new CSSStyleSheet();
  sheets.set(rule, sheet);
  sheet.replaceSync(rule);
  for (const root of roots) {
    const others = root.adoptedStyleSheets.filter((one) => one !== sheet);
    root.adoptedStyleSheets = on ? [...others, sheet] : others;
  }
}

/** Takes all that is on the page away: what stands in its frames is left, as when a visitor goes. */
export function clearAway(): void {
  globalThis.mivketNotebook.page.documentElement.remove();
}
