import type { Viewport } from '../render.js';
import type { HouseFile } from './schema.js';

export type { Viewport } from '../render.js';

/** A place of the host page, for the viewport widths `from` to `to` (CSS px, both included). */
export interface SlotRange {
  from: number;
  to: number;
  width: number | 'full';
  inset: number;
  height: number | null;
}

export interface Slot {
  name: string;
  ranges: SlotRange[];
  align: 'start' | 'center' | 'end';
  headingLevel: number;
}

export type Level = 'blocker' | 'concern' | 'advice';

/** Everything the publisher has laid down, with the defaults filled in. */
export interface House extends Omit<HouseFile, 'viewports' | 'slots'> {
  /** The file it was read from; null for the defaults. */
  file: string | null;
  viewports: Viewport[];
  slots: Slot[];
}

/** The narrowest width of a viewport that is taken for a desktop. */
const DESKTOP_FROM = 600;

const DEFAULT_WIDTHS = [
  { name: 'phone-320', width: 320 },
  { name: 'phone-390', width: 390 },
  { name: 'tablet-768', width: 768 },
  { name: 'desktop-1280', width: 1280 },
];

/** A viewport of which only name and width are known: a phone below 600 px, else a desktop. */
export function makeViewport(given: Partial<Viewport> & { name: string; width: number }): Viewport {
  const phone = given.width < DESKTOP_FROM;
  const touch = given.touch ?? phone;
  return {
    name: given.name,
    width: given.width,
    height: given.height ?? (phone ? 740 : 800),
    density: given.density ?? (phone ? 2 : 1),
    touch,
    scrollBars: given.scrollBars ?? (touch ? 'overlay' : 'classic'),
    scheme: given.scheme ?? 'light',
    userAgent: given.userAgent ?? null,
    media: {},
    visit: 1,
    condition: '',
  };
}

/** Fills in what the file leaves open. */
export function completeHouse(file: HouseFile, path: string | null): House {
  const viewports = (file.viewports ?? DEFAULT_WIDTHS).map((given) =>
    makeViewport(withoutUndefined(given)),
  );
  const slots = Object.entries(file.slots ?? { column: { width: 680, inset: 16 } });
  return {
    ...file,
    file: path,
    viewports,
    slots: slots.map(([name, given]) => completeSlot(name, given)),
  };
}

type SlotFile = NonNullable<HouseFile['slots']>[string];

function completeSlot(name: string, given: SlotFile | { width: number; inset: number }): Slot {
  const ranges = (Array.isArray(given) ? given : [given]) as Exclude<SlotFile, unknown[]>[];
  return {
    name,
    align: ranges.find((range) => range.align)?.align ?? 'start',
    headingLevel: ranges.find((range) => range.headingLevel)?.headingLevel ?? 2,
    ranges: ranges.map((range) => ({
      from: range.from ?? 0,
      to: range.to ?? Infinity,
      width: range.width,
      inset: range.inset,
      height: range.height ?? null,
    })),
  };
}

/** The slot's measures at a viewport's width, or null where it does not exist there. */
export function getSlotRange(slot: Slot, width: number): SlotRange | null {
  return slot.ranges.find((range) => width >= range.from && width <= range.to) ?? null;
}

function withoutUndefined<T extends object>(
  given: T,
): { [K in keyof T]: Exclude<T[K], undefined> } {
  const entries = Object.entries(given).filter(([, value]) => value !== undefined);
  return Object.fromEntries(entries) as { [K in keyof T]: Exclude<T[K], undefined> };
}
