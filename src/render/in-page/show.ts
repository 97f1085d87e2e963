import { nextFrame } from './shared.js';

/** Brings the slot into view, where what waits to be looked at shows itself. */
export async function showSlot(selector: string): Promise<void> {
  const { page } = globalThis.mivketNotebook;
  await show(page.querySelector(selector));
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

/** Keeps the room of the scroll bar, by a sheet that no page sees in its tree. */
export function setGutter(kept: boolean): void {
  const sheets = document.adoptedStyleSheets;
  const rule = 'html { scrollbar-gutter: stable !important; }';
  if (!kept) {
    document.adoptedStyleSheets = sheets.filter((one) => one.cssRules[0]?.cssText !== rule);
    return;
  }
  const sheet = new CSSStyleSheet();
  sheet.replaceSync(rule);
  document.adoptedStyleSheets = [...sheets, sheet];
}
