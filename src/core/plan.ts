import type { Render } from './evidence.js';
import { getSlotRange, type House, type Slot, type Viewport } from './house/house.js';

/** Slots and viewports asked for; what is left out means all of the house. */
export interface PlanWish {
  slots: readonly Slot[];
  viewports: readonly Viewport[];
}

/** Every render of a snippet: each slot at each viewport where it exists. */
export function planRenders(name: string, house: House, wish: PlanWish): Render[] {
  return wish.slots.flatMap((slot) =>
    wish.viewports
      .filter((viewport) => getSlotRange(slot, viewport.width) !== null)
      .map((viewport): Render => ({
        snippets: [{ name, slot: slot.name }],
        insert: house.insert,
        viewport,
        engine: 'chromium',
        variant: 'as-is',
      })),
  );
}

/** Names the baseline that a render is held against. */
export function getBaselineKey(render: Render): string {
  return `${render.snippets[0]?.slot ?? ''} ${render.viewport.name}`;
}
