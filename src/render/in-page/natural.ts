import { mapPresent } from '../../core/lists.js';
import { nextFrame } from './shared.js';
import { setRule } from './show.js';

/** So high frames are made for a moment, px: what is higher by itself shows its height then. */
const LOW = 16;
/** How long a frame's page is waited for, and how often it is asked, ms. */
const LIMIT = 600;
const STEP = 8;

let kept: { frame: HTMLElement; style: string | null }[] = [];

/** Makes frames as low as can be, by their numbers, their widths as they are. */
export function squeezeFrames(ids: readonly number[]): void {
  const { nodes, own, tried } = globalThis.mivketNotebook;
  tried.push({ from: performance.now(), until: Infinity });
  const frames = mapPresent(ids, (id) => nodes.get(id) as HTMLElement | undefined);
  kept = frames.map((frame) => ({ frame, style: frame.getAttribute('style') }));
  for (const { frame } of kept) {
    const { width } = own(frame).getBoundingClientRect();
    const box = { 'box-sizing': 'border-box', width: `${width}px`, 'max-width': 'none' };
    const low = { height: `${LOW}px`, 'min-height': '0', 'max-height': 'none', transition: 'none' };
    for (const [property, value] of Object.entries({ ...box, ...low, padding: '0' }))
      frame.style.setProperty(property, value, 'important');
  }
}

/** Makes them again what they were; what the page jumped by meanwhile is not the snippet's doing. */
export function releaseFrames(): void {
  for (const { frame, style } of kept) {
    if (style === null) frame.removeAttribute('style');
    else frame.setAttribute('style', style);
  }
  kept = [];
  const last = globalThis.mivketNotebook.tried.at(-1);
  // Not waited for: where no frame is made nothing jumps either.
  void nextFrame()
    .then(nextFrame)
    .then(() => last && (last.until = performance.now()));
}

/** How high the frame was when it was read, px. */
let before = 0;

/** Asked in a frame while it is as it was. */
export function noteRoom(): void {
  before = window.innerHeight;
}

/** Asked in a frame that was made low: resolves as soon as it has its room again. */
export async function waitForRoom(): Promise<void> {
  await whileItIs(() => before > LOW && window.innerHeight <= LOW);
}

/** Out of view no frame is drawn, so that no event tells. */
async function whileItIs(holds: () => boolean): Promise<void> {
  const end = performance.now() + LIMIT;
  while (holds() && performance.now() < end)
    await new Promise((resolve) => setTimeout(resolve, STEP));
}

/** How high the content of a frame is by itself. */
export interface Natural {
  /** px; null where it fills whatever it gets. */
  height: number | null;
}

/** Asked in a frame that was made low: null where it is none of the page's own, or did not become low in time. */
export async function readNatural(): Promise<Natural | null> {
  const { page } = globalThis.mivketNotebook;
  if (window.parent !== window.top) return null;
  await whileItIs(() => window.innerHeight > LOW);
  if (window.innerHeight > LOW) return null;
  // A bar would take from the width, and make it higher.
  const rule = 'html, body { scrollbar-width: none !important; }';
  setRule(rule, true);
  const { scrollHeight } = page.scrollingElement ?? page.documentElement;
  setRule(rule, false);
  return { height: scrollHeight > LOW + 1 ? scrollHeight : null };
}
