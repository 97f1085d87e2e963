import { mapPresent } from '../../../core/lists.js';
import { SLOT_ATTRIBUTE } from '../../../core/host/slot-attribute.js';
import { findSlot } from '../slots.js';
import type { Change } from '../../../core/trial/change.js';
import { Changes } from './changes.js';
import { Hold } from './hold.js';
import { Gauge, type Aim } from './measure.js';

/** Where something is tried, and what it is held against. */
export interface TrialScene {
  slot: string;
  targets: readonly Aim[];
}

/** No page is tried on for longer than this, ms. */
const LONGEST = 2500;
/** What sticks out by this much is let be, px. */
export const TOLERANCE = 1;

/** The elements that are changed; what a rule of a sheet is for is not known. */
export function listChanged(changes: readonly Change[]): Element[] {
  const { nodes } = globalThis.mivketNotebook;
  return mapPresent(changes, ({ id, do: what }) => (what === 'text' ? null : nodes.get(id)));
}

export function withChanges<T>(changes: readonly Change[], look: () => T): T | null {
  const made = new Changes();
  if (!made.make(changes)) return null;
  try {
    held?.restore();
    return look();
  } finally {
    made.takeBack();
    held?.restore();
  }
}

/** The animations as they were when the scene was set. */
let held: Hold | null = null;

/** Sets the scene, and takes it away again: no transition runs, and the slot is as narrow as is asked for. */
export function withinScene<T>(
  { slot: name, targets }: TrialScene,
  act: (gauges: Gauge[], isOver: () => boolean, slot: Element) => T,
): T | null {
  const { page } = globalThis.mivketNotebook;
  const slot = findSlot(page, name);
  if (!slot) return null;
  const room = targets.find((one) => one.room !== null)?.room ?? null;
  const end = performance.now() + LONGEST;
  held = new Hold();
  return withRule('*, *::before, *::after { transition: none !important; }', () =>
    withRoom(slot, room, () => {
      const gauges = targets.map((target) => new Gauge(target));
      return act(gauges, () => performance.now() > end, slot);
    }),
  );
}

/** With the slot of a certain width, px; null: as wide as it is. */
export function withRoom<T>(slot: Element, room: number | null, act: () => T): T {
  if (room === null) return act();
  const name = CSS.escape(globalThis.mivketNotebook.own(slot).getAttribute(SLOT_ATTRIBUTE)!);
  const rule = `width: ${room}px !important; min-width: 0 !important; max-width: none !important; box-sizing: content-box !important;`;
  return withRule(`[${SLOT_ATTRIBUTE}="${name}"] { ${rule} }`, act);
}

export function withRule<T>(css: string, act: () => T): T {
  const sheet = new CSSStyleSheet();
  sheet.replaceSync(css);
  // The list itself lives on: a copy is what it is put back to.
  const sheets = [...document.adoptedStyleSheets];
  document.adoptedStyleSheets = [...sheets, sheet];
  try {
    return act();
  } finally {
    document.adoptedStyleSheets = sheets;
  }
}
